import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Changed, HistoryReply, Problem, SavedCounts, SavedList, SavedSearch } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let colleague: Person;
let reader: Person;
let ids: string[];
beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('steward');
  colleague = await server.person('contributor', me.workspace);
  reader = await server.person('reader', me.workspace);
  await me.import({
    'four.ris': ['Tidal gate', 'Tidal sluice', 'Groyne', 'Weir']
      .map((t) => `TY  - BOOK\nTI  - ${t}\nER  - \n`)
      .join(''),
  });
  ids = (await me.ask('', '&sort=title')).rows.map((r) => r.id);
  await me.at('POST', '/tagging', { ids: ids.slice(0, 2), name: 'used', present: true });
  await server.settle();
});
afterAll(() => server.close());

const keep = async (by: Person, name: string, ask: object, more: object = {}): Promise<string> =>
  (await by.at<Changed>('POST', '/saved', { name, ask, ...more })).id!;
const listed = async (by: Person): Promise<Map<string, SavedSearch>> =>
  new Map((await by.at<SavedList>('GET', '/saved')).searches.map((s) => [s.name, s]));
const counted = async (by: Person, id: string): Promise<number | undefined> =>
  (await by.at<SavedCounts>('GET', '/saved-counts')).counts.find((c) => c.id === id)?.count;
const remove = (by: Person, id: string): Promise<unknown> => by.at('DELETE', `/saved/${id}`);

describe('a search that is kept', () => {
  test('asks what was asked, with all it was narrowed to, and its count follows what changes', async () => {
    const tag = (await me.ask('')).rows.flatMap((r) => r.tags)[0]!;
    const id = await keep(me, 'Tidal, used', { q: 'tidal', include: [`tag=${tag.id}`] });
    const before = await counted(me, id);
    await me.at('POST', '/tagging', { ids, name: 'used', present: true });
    const after = await counted(me, id);
    await me.at('POST', '/undo', {});
    expect([before, after, await counted(me, id)]).toEqual([1, 2, 1]);
    await remove(me, id);
  });

  test('is its maker’s own until it is shared, in list, counts, questions and history alike', async () => {
    const id = await keep(colleague, 'My doubts', { q: 'weir' });
    expect((await listed(me)).has('My doubts')).toBe(false);
    expect(await counted(me, id)).toBeUndefined();
    expect((await me.ask('saved:"My doubts"')).total).toBe(0);
    expect((await colleague.ask('saved:"My doubts"')).total).toBe(1);
    const says = async (): Promise<string[]> =>
      (await me.at<HistoryReply>('GET', '/changes')).entries.map((e) => e.says).filter((s) => s.includes('My doubts'));
    expect(await says()).toEqual([]);
    expect((await me.call('PATCH', `/w/${me.workspace}/saved/${id}`, { name: 'Theirs' })).status).toBe(404);
    await colleague.at('PATCH', `/saved/${id}`, { shared: true });
    expect((await listed(me)).get('My doubts')).toMatchObject({ shared: true, madeBy: colleague.info.name });
    expect((await me.ask('saved:"my doubts"')).total).toBe(1);
    await remove(colleague, id);
  });

  test('of a reader is kept, but not shared by one who may not arrange', async () => {
    const body = { name: 'Weirs', ask: { q: 'weir' }, shared: true };
    expect((await reader.call('POST', `/w/${me.workspace}/saved`, body)).status).toBe(403);
    const id = await keep(reader, 'Weirs', { q: 'weir' });
    expect(await counted(reader, id)).toBe(1);
    await remove(reader, id);
  });

  test('is renamed, described and put into a folder, and each of it is taken back', async () => {
    const folder = (await me.at<Changed>('POST', '/folders', { name: 'Before filing', shared: true })).id!;
    const id = await keep(me, 'Loose ends', { q: 'groyne' }, { shared: true });
    const { says } = await me.at<Changed>('PATCH', `/saved/${id}`, {
      name: 'Open ends',
      describes: 'What nobody has looked at',
      keywords: ['brief', ' brief', ''],
      folder,
    });
    expect(says).toBe('Renamed the saved search “Loose ends” to “Open ends”');
    expect((await listed(me)).get('Open ends')).toMatchObject({ folder, keywords: ['brief'], ask: { q: 'groyne' } });
    await me.at('POST', '/undo', {});
    expect((await listed(me)).get('Loose ends')).toMatchObject({ folder: null, keywords: [] });
    await me.at('DELETE', `/folders/${folder}`);
    await remove(me, id);
  });

  test('that lies in a folder no longer there lies at the top, and back in it when that is taken back', async () => {
    const folder = (await me.at<Changed>('POST', '/folders', { name: 'Drafts' })).id!;
    const id = await keep(me, 'In drafts', { q: 'weir' }, { folder });
    await me.at('DELETE', `/folders/${folder}`);
    expect((await listed(me)).get('In drafts')!.folder).toBeNull();
    await me.at('POST', '/undo', {});
    expect((await listed(me)).get('In drafts')!.folder).toBe(folder);
    await remove(me, id);
  });

  test('is used inside another; one that would ask for itself asks for nothing, and a name nothing has is told', async () => {
    const first = await keep(me, 'Tides', { q: 'tidal' });
    const second = await keep(me, 'Tides without sluices', { q: 'saved:Tides -sluice' });
    expect((await me.ask('saved:"Tides without sluices"')).total).toBe(1);
    await me.at('PATCH', `/saved/${first}`, { ask: { q: 'saved:"Tides without sluices"' } });
    expect((await me.ask('saved:Tides')).total).toBe(0);
    const { notes } = await me.ask('gate saved:"No such"');
    expect(notes).toEqual([{ start: 5, end: 20, says: 'Nothing here is called “No such” under “Saved search”' }]);
    await remove(me, second);
    await remove(me, first);
  });

  test('with a question that cannot be asked, or in a folder of nobody, is refused', async () => {
    const status = async (body: object): Promise<number> =>
      (await me.call<Problem>('POST', `/w/${me.workspace}/saved`, { name: 'x', ask: {}, ...body })).status;
    expect(await status({ ask: { include: ['nonsense'] } })).toBe(400);
    expect(await status({ folder: ids[0] })).toBe(404);
    expect(await status({ name: '  ' })).toBe(400);
  });
});

test('a folder is put into another, but not into one that lies in it', async () => {
  const [outer, inner] = [
    (await me.at<Changed>('POST', '/folders', { name: 'Outer' })).id!,
    (await me.at<Changed>('POST', '/folders', { name: 'Inner' })).id!,
  ];
  await me.at('PATCH', `/folders/${inner}`, { parent: outer });
  expect((await me.call('PATCH', `/w/${me.workspace}/folders/${outer}`, { parent: inner })).status).toBe(409);
  const { folders } = await me.at<SavedList>('GET', '/saved');
  expect(folders.find((f) => f.id === inner)).toMatchObject({ parent: outer, shared: false });
});
