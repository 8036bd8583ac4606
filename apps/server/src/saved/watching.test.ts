/** Saved searches that are watched, done to many at once, locked; and the log of what is asked. */
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { AskedLog, Changed, SavedCounts, SavedList, TouchedByChange } from '@pandecta/contract';
import { startPost, type Post } from '../testing/post.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';
import { tellOfWatched } from './watching.ts';

let server: TestServer;
let post: Post;
let me: Person;
let other: Person;
let ids: string[];
beforeAll(async () => {
  post = await startPost();
  server = await startTestServer({ smtp: post.smtp });
});
afterAll(async () => {
  await server.close();
  await post.close();
});
beforeEach(async () => {
  post.letters.length = 0;
  me = await server.person('steward');
  other = await server.person('contributor', me.workspace);
  await me.import({ 'a.ris': ['Ebb', 'Marsh', 'Silt'].map((t) => `TY  - BOOK\nTI  - ${t}\nER  - \n`).join('') });
  ids = (await me.ask('', '&sort=title')).rows.map((r) => r.id);
});

const keep = async (name: string, q: string, more: object = {}): Promise<string> =>
  (await me.at<Changed>('POST', '/saved', { name, ask: { q }, shared: true, ...more })).id!;
const tag = (of: string[], present = true): Promise<unknown> =>
  me.at('POST', '/tagging', { ids: of, name: 'used', present });
const fresh = async (by: Person, id: string): Promise<number | undefined> =>
  (await by.at<SavedCounts>('GET', '/saved-counts')).counts.find((c) => c.id === id)!.fresh;
const list = (by = me): Promise<SavedList> => by.at<SavedList>('GET', '/saved');

test('a search that is watched says what came into its answer since one looked, for each member by themselves', async () => {
  await tag([ids[0]!]);
  const used = await keep('Used', 'tag:used');
  expect(await fresh(me, used)).toBeUndefined();
  await me.at('PUT', `/saved/${used}/watch`, { watched: true });
  expect(await fresh(me, used)).toBe(0);
  // Not one just added: one that comes to match is new as well.
  await tag([ids[1]!, ids[2]!]);
  expect([await fresh(me, used), await fresh(other, used)]).toEqual([2, undefined]);
  expect(await me.titles('new:Used')).toEqual(['Marsh', 'Silt']);
  expect(await other.titles('new:Used')).toEqual([]);
  await tag([ids[2]!], false);
  expect(await me.titles('new:"Used" title:marsh')).toEqual(['Marsh']);
  await me.at('PUT', `/saved/${used}/seen`);
  expect([await fresh(me, used), await me.titles('new:Used')]).toEqual([0, []]);
  const { searches } = await me.at<SavedList>('PUT', `/saved/${used}/watch`, { watched: false });
  expect([searches[0]!.watch, await fresh(me, used)]).toEqual([null, undefined]);
});

test('whoever asked for it is told by mail of each new source once; what could not be sent is told the next time', async () => {
  const used = await keep('Used', 'tag:used');
  await me.at('PUT', `/saved/${used}/watch`, { watched: true, mail: true });
  const { services } = server.app;
  await tellOfWatched(services);
  await tag([ids[0]!]);
  await tellOfWatched(services);
  await tellOfWatched(services);
  await tag([ids[1]!]);
  await tellOfWatched(services);
  expect(post.letters.map((l) => [/^Subject: (.*)/m.exec(l)![1]!.trim(), l.match(/^- .*/gm)!.map((t) => t.trim())])).toEqual([
    ['Used: 1 source new', ['- Ebb']],
    ['Used: 1 source new', ['- Marsh']],
  ]); // prettier-ignore
});

test('many are moved, copied apart and removed as one step each', async () => {
  const [a, b] = [await keep('Ebb', 'ebb'), await keep('Silt', 'silt')];
  const { id: folder } = await me.at<Changed>('POST', '/folders', { name: 'Brief', shared: true });
  const many = (to: string, more: object = {}): Promise<Changed> =>
    me.at<Changed>('POST', '/saved-many', { ids: [a, b], to, ...more });
  expect((await many('move', { folder })).says).toBe('Moved 2 saved searches');
  expect((await list()).searches.map((s) => s.folder)).toEqual([folder, folder]);
  await many('copy');
  await me.at('PATCH', `/saved/${a}`, { ask: { q: 'flood' } });
  expect((await list()).searches.map((s) => [s.name, s.ask.q, s.folder, s.shared])).toEqual([
    ['Ebb', 'flood', folder, true],
    ['Ebb (copy)', 'ebb', null, false],
    ['Silt', 'silt', folder, true],
    ['Silt (copy)', 'silt', null, false],
  ]);
  await many('remove');
  expect((await list()).searches.map((s) => s.name)).toEqual(['Ebb (copy)', 'Silt (copy)']);
  await me.at('POST', '/undo', {});
  expect((await list()).searches.length).toBe(4);
});

test('what lies in a folder that is locked, or in one below it, stewards alone alter', async () => {
  const { id: folder } = await me.at<Changed>('POST', '/folders', { name: 'Filed', shared: true });
  const { id: below } = await me.at<Changed>('POST', '/folders', { name: 'Lower', shared: true, parent: folder });
  const search = await keep('Ebb', 'ebb', { folder: below });
  const loose = await keep('Silt', 'silt');
  const tries = async (): Promise<number[]> =>
    (
      await Promise.all([
        other.call('PATCH', `/w/${me.workspace}/saved/${search}`, { describes: 'x' }),
        other.call('PATCH', `/w/${me.workspace}/saved/${loose}`, { folder: below }),
        other.call('POST', `/w/${me.workspace}/saved-many`, { ids: [search], to: 'copy', folder: below }),
        other.call('PATCH', `/w/${me.workspace}/folders/${below}`, { name: 'Mine' }),
        other.call('PATCH', `/w/${me.workspace}/folders/${folder}`, { locked: false }),
      ])
    ).map((r) => r.status);
  await me.at('PATCH', `/folders/${folder}`, { locked: true });
  expect(await tries()).toEqual([403, 403, 403, 403, 403]);
  expect((await list(other)).folders.map((f) => [f.name, f.locked])).toEqual([['Filed', true], ['Lower', false]]); // prettier-ignore
  expect((await me.call('PATCH', `/w/${me.workspace}/saved/${search}`, { describes: 'x' })).status).toBe(200);
  expect((await other.ask('saved:Ebb')).total).toBe(1);
});

test('what a member may not do they may not do by taking something back either', async () => {
  const { id: folder } = await me.at<Changed>('POST', '/folders', { name: 'Locked', shared: true });
  const search = await keep('Weir', 'ebb', { folder });
  const renamed = await other.at<Changed>('PATCH', `/saved/${search}`, { describes: 'theirs' });
  const locked = await me.at<Changed>('PATCH', `/folders/${folder}`, { locked: true });
  for (const { changeId } of [locked, renamed]) {
    const undo = await other.call<{ code: string }>('POST', `/w/${me.workspace}/changes/${changeId}/undo`);
    expect([undo.status, undo.body.code]).toEqual([403, 'not_allowed']);
    const told = await other.at<TouchedByChange>('GET', `/changes/${changeId}/sources`);
    expect(told.stays).toBe('Your role here does not allow this.');
  }
  expect((await list(other)).folders.find((f) => f.id === folder)!.locked).toBe(true);
  await me.at('POST', `/changes/${locked.changeId}/undo`);
});

test('what one asks is logged for who wants it, the same question once, and seen by all members', async () => {
  const note = (by: Person, words: string, found: number): Promise<AskedLog> =>
    by.at<AskedLog>('POST', '/asked', { ask: { q: words }, words, found });
  expect((await note(me, 'ebb', 1)).asked).toEqual([]);
  expect((await me.at<AskedLog>('PUT', '/asked', { logs: true })).logs).toBe(true);
  await note(me, 'ebb', 1);
  await note(me, 'silt', 1);
  await note(me, 'ebb', 2);
  await note(other, 'marsh', 1);
  const { logs, asked } = await other.at<AskedLog>('GET', '/asked');
  expect([logs, asked.map((a) => [a.words, a.found, a.by])]).toEqual([
    false,
    [
      ['silt', 1, me.info.name],
      ['ebb', 2, me.info.name],
    ],
  ]);
});

test('a question that cannot be asked any more is told to whoever watches it, and holds up no mail of others', async () => {
  const { services } = server.app;
  const bad = await keep('Broken', 'ebb');
  const good = await keep('Whole', 'weir');
  for (const id of [bad, good]) await me.at('PUT', `/saved/${id}/watch`, { watched: true, mail: true });
  await services.database.pool.query(
    `update entries set value = jsonb_set(value, '{ask,include}', '["no-such=facet"]') where id = $1`,
    [bad],
  );
  await me.at('POST', '/sources', { record: { type: 'book', title: 'The weir at night' } });
  await server.settle();
  post.letters.length = 0;
  for (let i = 0; i < 5; i += 1) await tellOfWatched(services);
  expect(post.letters.map((l) => /^Subject: (.*)$/m.exec(l)![1]!.trim())).toEqual(['Whole: 1 source new']);
  const { searches } = await list();
  expect(searches.find((s) => s.name === 'Broken')!.watch).toMatchObject({
    mail: false,
    says: expect.stringContaining('no-such') as string,
  });
  // Its count is missing, not everyone's.
  const { counts } = await me.at<SavedCounts>('GET', '/saved-counts');
  expect(counts.some((c) => c.id === good)).toBe(true);
  expect(counts.some((c) => c.id === bad)).toBe(false);
});
