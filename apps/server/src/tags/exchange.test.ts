/** Vocabularies from and to elsewhere; tags made of subject terms; collections that allow only some tags. */
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { BroughtVocabulary, Changed, Problem, Vocabulary } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let ids: string[];
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  me = await server.person('contributor');
  await me.import({
    'three.ris': ['Groyne', 'Sluice', 'Weir'].map((t) => `TY  - BOOK\nTI  - ${t}\nKW  - Hydraulics\nER  - \n`).join(''),
  });
  ids = (await me.ask('', '&sort=title')).rows.map((r) => r.id);
});

const terms = async (subject = false): Promise<Vocabulary['terms']> =>
  (await me.at<Vocabulary>('GET', '/vocabulary')).terms.filter((t) => t.subject === subject);
/** "mud < silt (The estuary): what it means" */
const lines = async (subject = false): Promise<string[]> => {
  const all = await terms(subject);
  const nameOf = new Map(all.map((t) => [t.id, t.name]));
  return all.map(
    (t) =>
      `${t.name}${t.broader ? ` < ${nameOf.get(t.broader)!}` : ''}${t.heading && ` (${t.heading})`}${t.says && `: ${t.says}`}`,
  );
};
const bring = (text: string, subject = false): Promise<BroughtVocabulary> =>
  me.at<BroughtVocabulary>('POST', '/vocabulary-file', { text, subject });
const file = (format: string): Promise<string> => me.at<string>('GET', `/vocabulary-file?format=${format}`);

test('a table brings in what is new, fills in what nobody said, and alters nothing that someone did', async () => {
  await me.at('POST', '/tagging', { ids, name: 'silt', present: true });
  const [silt] = await terms();
  await me.at('PATCH', `/vocabulary/${silt!.id}`, { says: 'Ours' });
  const { says, messages } = await bring(
    'term,definition,group,BT\nSilt,Theirs,Bed,sediment\nsediment,What sinks,Bed,\nmud,,,silt\n,nameless,,\nsand,,,gravel\n',
  );
  expect(says).toBe('Brought in a vocabulary: 3 new tags, 1 completed, 0 known as they are');
  expect(messages).toEqual(['Line 5 has no name and was left out', '“sand” is narrower than something that is not in the vocabulary']); // prettier-ignore
  expect(await lines()).toEqual(['mud < silt', 'sand', 'sediment (Bed): What sinks', 'silt < sediment (Bed): Ours']);
  expect((await bring('term\nmud\n')).changeId).toBeNull();
  await me.at('POST', '/undo', {});
  expect(await lines()).toEqual(['silt: Ours']);
});

test.each(['skos', 'csv'])('what goes out as %s comes in elsewhere as the same vocabulary', async (format) => {
  await bring('name,meaning,heading,broader\nsilt,"Fine, and ""wet""",Bed,\nmud,,,silt\n=mud,,,mud\n');
  const [out, before] = [await file(format), await lines()];
  me = await server.person('contributor');
  await bring(out);
  expect([await lines(), before.length]).toEqual([before, 3]);
});

test('a circle in what comes in is cut, and one is refused when it is made by hand', async () => {
  const { messages } = await bring('name,meaning,heading,broader\na,,,b\nb,,,c\nc,,,a\n');
  expect(messages).toEqual(['“c” would stand under itself']);
  const byName = new Map((await terms()).map((t) => [t.name, t.id]));
  const edit = (name: string, broader: string): Promise<{ status: number }> =>
    me.call('PATCH', `/w/${me.workspace}/vocabulary/${byName.get(name)!}`, { broader: byName.get(broader) });
  expect([(await edit('c', 'a')).status, (await edit('c', 'c')).status]).toEqual([400, 400]);
});

test('what is no vocabulary is refused with where it went wrong, and nothing is altered', async () => {
  for (const [text, why] of [
    ['@prefix skos: <http://www.w3.org/2004/02/skos/core#> .\n<a> skos:prefLabel "x', /cannot be read/],
    ['<?xml version="1.0"?><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description>', /cannot be read/], // prettier-ignore
    ['name\n\n', /holds no words/],
  ] as const) {
    const { status, body } = await me.call<Problem>('POST', `/w/${me.workspace}/vocabulary-file`, { text });
    expect([status, body.detail]).toEqual([400, expect.stringMatching(why)]);
  }
  expect(await terms()).toEqual([]);
});

test('tags are made of subject terms, beside them or in their place, and undone', async () => {
  const of = async (): Promise<string[]> => (await me.ask('tag:Hydraulics')).rows.map((r) => r.record.title!).sort();
  const [term] = await terms(true);
  const make = (keep: boolean): Promise<Changed> =>
    me.at<Changed>('POST', '/vocabulary-tags', { terms: [term!.id], keep });
  await make(true);
  expect([await of(), (await terms(true)).length]).toEqual([['Groyne', 'Sluice', 'Weir'], 1]);
  await make(false);
  expect([(await of()).length, (await terms(true)).length]).toEqual([3, 0]);
  await me.at('POST', '/undo', {});
  await me.at('POST', '/undo', {});
  expect([await of(), (await terms(true))[0]!.count]).toEqual([[], 3]);
});

test('a collection that allows the tags of one heading refuses any other on what stands in it', async () => {
  await bring('name,heading\nadverse,For the brief\nmuddy,The estuary\n');
  const { id } = await me.at<Changed>('POST', '/collections', { name: 'Brief' });
  await me.at('POST', '/filing', { ids: [ids[0]], collections: [id], present: true });
  await me.at('PATCH', `/collections/${id}`, { allows: 'For the brief' });
  const tag = (name: string, of = ids): Promise<{ status: number; body: Problem }> =>
    me.call<Problem>('POST', `/w/${me.workspace}/tagging`, { ids: of, name, present: true });
  expect([(await tag('adverse')).status, (await tag('muddy', ids.slice(1))).status]).toEqual([200, 200]);
  const refused = await tag('muddy');
  expect([refused.status, refused.body.detail]).toEqual([
    400,
    'Invalid request: Brief allows only tags of “For the brief”, and “muddy” is none of them',
  ]);
  await me.at('PATCH', `/collections/${id}`, { allows: null });
  expect((await tag('muddy')).status).toBe(200);
});
