import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Problem, Vocabulary, VocabularyTerm } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let ids: string[];
beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('contributor');
  await me.import({
    'three.ris': ['Groyne', 'Sluice', 'Weir'].map((t) => `TY  - BOOK\nTI  - ${t}\nKW  - Hydraulics\nER  - \n`).join(''),
  });
  ids = (await me.ask('', '&sort=title')).rows.map((r) => r.id);
  await put(ids, 'red');
  await put([ids[0]!], 'Reds');
  await put([ids[1]!], 'marsh');
});
afterAll(() => server.close());

const put = (of: string[], name: string): Promise<unknown> =>
  me.at('POST', '/tagging', { ids: of, name, present: true });
const vocabulary = (): Promise<Vocabulary> => me.at('GET', '/vocabulary');
const term = async (name: string): Promise<VocabularyTerm> => (await vocabulary()).terms.find((t) => t.name === name)!;
const tagsOf = async (n: number): Promise<string[]> =>
  (await me.ask('', '&sort=title')).rows[n]!.tags.filter((t) => !t.subject)
    .map((t) => t.name)
    .sort();

test('the vocabulary counts what bears each term, and finds those that are one word', async () => {
  const { terms, alike } = await vocabulary();
  expect(terms.map((t) => [t.name, t.subject, t.count])).toEqual([
    ['Hydraulics', true, 3],
    ['marsh', false, 1],
    ['red', false, 3],
    ['Reds', false, 1],
  ]);
  const names = new Map(terms.map((t) => [t.id, t.name]));
  expect(alike.map((g) => g.ids.map((id) => names.get(id)))).toEqual([['red', 'Reds']]);
});

test('tags are merged into one, which all bear, and taken apart again in one step', async () => {
  const [into, other] = [await term('red'), await term('Reds')];
  const { says } = await me.at<{ says: string }>('POST', '/vocabulary-merges', { into: into.id, terms: [other.id] });
  expect(says).toBe('Merged another tag into “red”, which 3 sources now bear');
  expect([await tagsOf(0), (await vocabulary()).alike]).toEqual([['red'], []]);
  await me.at('POST', '/undo', {});
  expect(await tagsOf(0)).toEqual(['Reds', 'red']);
});

test('a tag named in capital letters is none that is known, and merges nothing', async () => {
  const [into, other] = [await term('red'), await term('Reds')];
  const { status } = await me.call('POST', `/w/${me.workspace}/vocabulary-merges`, { into: into.id, terms: [other.id.toUpperCase()] }); // prettier-ignore
  expect([status, await tagsOf(0)]).toEqual([404, ['Reds', 'red']]);
});

test('a tag is renamed, described and put under a heading; a name that is taken is refused with what to do', async () => {
  const { id } = await term('marsh');
  const { says } = await me.at<{ says: string }>('PATCH', `/vocabulary/${id}`, {
    name: 'saltmarsh',
    says: 'Between neap and spring tide',
    heading: 'Places',
  });
  expect(says).toBe('Renamed the tag “marsh” to “saltmarsh”');
  expect(await term('saltmarsh')).toMatchObject({ says: 'Between neap and spring tide', heading: 'Places', count: 1 });
  expect((await me.ask('tag:saltmarsh')).total).toBe(1);
  const taken = await me.call<Problem>('PATCH', `/w/${me.workspace}/vocabulary/${id}`, { name: 'RED' });
  expect([taken.status, taken.body.detail]).toEqual([400, expect.stringContaining('merge the two instead')]);
  await me.at('POST', '/undo', {});
  expect((await term('marsh')).heading).toBe('');
});

test('a tag that is removed goes from its sources, and an undo gives it back to the same; not where its name is taken since', async () => {
  const { id } = await term('marsh');
  const gone = await me.at<{ says: string; changeId: string }>('DELETE', `/vocabulary/${id}`);
  expect(gone.says).toBe('Removed the tag “marsh” from 1 source, which stays');
  expect([await tagsOf(1), await term('marsh')]).toEqual([['red'], undefined]);
  await me.at('POST', '/undo', {});
  expect(await tagsOf(1)).toEqual(['marsh', 'red']);
  const again = await me.at<{ changeId: string }>('DELETE', `/vocabulary/${id}`);
  await put([ids[2]!], 'Marsh');
  const undone = await me.call<Problem>('POST', `/w/${me.workspace}/changes/${again.changeId}/undo`, {});
  expect([undone.status, undone.body.code]).toEqual([409, 'undo_conflict']);
});

test('a subject term becomes a tag: it is found as one, and by words no more', async () => {
  const { id } = await term('Hydraulics');
  await me.at('PATCH', `/vocabulary/${id}`, { subject: false });
  await server.settle();
  expect([(await me.ask('tag:hydraulics')).total, (await me.ask('hydraulics')).total]).toEqual([3, 0]);
});
