import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Changed, SourceDetail, TagList } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let ids: string[];
beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('contributor');
  await me.import({
    'three.ris': ['Weir', 'Sluice', 'Groyne'].map((t) => `TY  - BOOK\nTI  - ${t}\nKW  - Hydraulics\nER  - \n`).join(''),
  });
  ids = (await me.ask('', '&sort=title')).rows.map((r) => r.id);
});
afterAll(() => server.close());

const tagsOf = async (id: string): Promise<string[]> =>
  (await me.at<SourceDetail>('GET', `/sources/${id}`)).tags.map((t) => (t.subject ? `(${t.name})` : t.name));
const put = (of: string[], name: string, present = true): Promise<Changed> =>
  me.at('POST', '/tagging', { ids: of, name, present });

test('a tag is put on many at once, says so, and is taken away from one', async () => {
  expect((await put(ids, 'Used')).says).toBe('Added the tag “Used” to 3 sources');
  await put([ids[0]!], 'Used', false);
  expect(await Promise.all(ids.map(tagsOf))).toEqual([
    ['(Hydraulics)'],
    ['Used', '(Hydraulics)'],
    ['Used', '(Hydraulics)'],
  ]);
});

test('the same name in other letters is the same tag', async () => {
  await put([ids[0]!], 'USED ');
  expect(await tagsOf(ids[0]!)).toEqual(['Used', '(Hydraulics)']);
});

test('a tag is not the subject term of its name', async () => {
  await put([ids[1]!], 'hydraulics');
  expect(await tagsOf(ids[1]!)).toEqual(expect.arrayContaining(['hydraulics', '(Hydraulics)']));
  await put([ids[1]!], 'hydraulics', false);
  expect(await tagsOf(ids[1]!)).toContain('(Hydraulics)');
});

test('putting what is there already changes nothing, and is no step to undo', async () => {
  await put([ids[2]!], 'adverse');
  expect((await put([ids[2]!], 'adverse')).changeId).toBeNull();
  await me.at('POST', '/undo', {});
  expect(await tagsOf(ids[2]!)).not.toContain('adverse');
});

test('names are suggested by their beginning, whatever the accents', async () => {
  await put([ids[0]!], 'Élan vital');
  const names = async (begins: string): Promise<string[]> =>
    (await me.at<TagList>('GET', `/tags?begins=${encodeURIComponent(begins)}`)).tags.map((t) => t.name);
  expect(await names('us')).toEqual(['Used']);
  expect(await names('élan')).toEqual(['Élan vital']);
  expect(await names('zzz')).toEqual([]);
});

test('a tag without a name, or on a source of another workspace, does nothing', async () => {
  expect((await me.call('POST', `/w/${me.workspace}/tagging`, { ids, name: '   ', present: true })).status).toBe(400);
  const stranger = await server.person('steward');
  const reply = await stranger.at<Changed>('POST', '/tagging', { ids, name: 'theirs', present: true });
  expect(reply.changeId).toBeNull();
  expect(await tagsOf(ids[0]!)).not.toContain('theirs');
});
