import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { Changed, RelationsOf, VersionsReply } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let other: Person;
let ids: string[];
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  me = await server.person('contributor');
  other = await server.person('contributor', me.workspace);
  for (const title of ['Ebb v Flood', 'Gate v Keeper', 'Silt v Marsh'])
    await me.at('POST', '/sources', { record: { type: 'legal_case', title } });
  ids = (await me.ask('', '&sort=title')).rows.map((r) => r.id);
});
const say = (from: number, as: string, to: number, more: object = {}): Promise<Changed> =>
  me.at<Changed>('PUT', '/relation', { from: ids[from], to: ids[to], as, present: true, ...more });
const around = (n: number): Promise<RelationsOf> => me.at<RelationsOf>('GET', `/sources/${ids[n]!}/relations`);
const inWords = async (n: number): Promise<string[]> => {
  const { sources, relations } = await around(n);
  const name = (id: string): string => sources.find((s) => s.id === id)!.title.split(' ')[0]!;
  return relations.map((r) => `${name(r.from)} ${r.as} ${name(r.to)}${r.page && ` at ${r.page}`}`);
};

test('how one case stands to another is seen from both, with its note and page; said otherwise and undone', async () => {
  const { says } = await say(0, 'overrules', 1, { note: 'On the duty', page: '12' });
  expect(says).toBe('Added a relation between two sources: overrules');
  expect([await inWords(0), await inWords(1)]).toEqual([['Ebb overrules Gate at 12'], ['Ebb overrules Gate at 12']]);
  const more = await say(0, 'overrules', 1, { note: 'On the whole', page: '14' });
  expect((await around(1)).relations[0]).toMatchObject({ note: 'On the whole', page: '14' });
  await me.at('POST', `/changes/${more.changeId}/undo`);
  expect(await inWords(0)).toEqual(['Ebb overrules Gate at 12']);
  await say(0, 'overrules', 1, { present: false });
  expect((await around(0)).relations).toEqual([]);
});

test('what stands around a source is told with how those stand to each other', async () => {
  await say(0, 'follows', 1);
  await say(0, 'distinguishes', 2);
  await say(2, 'cites', 1);
  expect((await inWords(0)).length).toBe(3);
  expect((await inWords(1)).sort()).toEqual(['Ebb distinguishes Silt', 'Ebb follows Gate', 'Silt cites Gate']);
});

test('what was said of one that became part of another holds for that; in the bin, nothing is seen of it', async () => {
  await say(1, 'cites', 2);
  await me.at('POST', '/merges', { into: ids[0], sources: [ids[0], ids[1]] });
  const cited = { from: ids[0], as: 'cites', to: ids[2] };
  expect((await around(0)).relations).toMatchObject([cited]);
  await me.at('POST', '/presence', { ids: [ids[2]], to: 'bin' });
  expect((await around(0)).relations).toEqual([]);
  await me.at('POST', '/presence', { ids: [ids[2]], to: 'live' });
  expect((await around(0)).relations).toMatchObject([cited]);
});

test('an undo does not take back what another said since of the same two', async () => {
  const { changeId } = await say(0, 'cites', 1, { page: '3' });
  await other.at('PUT', '/relation', { from: ids[0], to: ids[1], as: 'cites', page: '4', present: true });
  const undone = await me.call('POST', `/w/${me.workspace}/changes/${changeId}/undo`);
  expect([undone.status, await inWords(0)]).toEqual([409, ['Ebb cites Gate at 4']]);
});

test('earlier versions of a record are told by what each change took from it, also when it altered many', async () => {
  const edit = (fields: object): Promise<unknown> => me.at('PATCH', `/sources/${ids[0]!}`, { fields });
  await edit({ title: 'Ebb v. Flood', note: 'Box 4' });
  await me.at('POST', '/altering', { ids, field: 'jurisdiction', way: 'set', value: 'Sallow' });
  await edit({ note: null });
  const { versions } = await me.at<VersionsReply>('GET', `/sources/${ids[0]!}/versions`);
  expect(versions.map((v) => [v.fields.toSorted(), v.record.title, v.record.note, v.record.jurisdiction])).toEqual([
    [['note'], 'Ebb v. Flood', 'Box 4', 'Sallow'],
    [['jurisdiction'], 'Ebb v. Flood', 'Box 4', undefined],
    [['note', 'title'], 'Ebb v Flood', undefined, undefined],
  ]);
});
