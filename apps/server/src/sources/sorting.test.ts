import { beforeAll, beforeEach, expect, test } from 'vitest';
import type { Changed, DocumentReply, HistoryEntry, KeptOpen, Problem, SortedPages } from '@pandecta/contract';
import { makePdf } from '../testing/pdf.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let at: string;
let file: string;
beforeAll(async () => {
  server = await startTestServer();
});
beforeEach(async () => {
  me = await server.person('contributor');
  await me.import({ 'letters.pdf': await makePdf([['First'], ['Second'], ['Third']]) });
  const [row] = (await me.ask('')).rows;
  file = row!.fileId!;
  at = `/sources/${row!.id}/files/${file}`;
});
const sorted = async (): Promise<SortedPages['pages']> => (await me.at<SortedPages>('GET', `${at}/pages`)).pages;
const say = (body: object, person = me): Promise<Changed> => person.at('PATCH', `${at}/pages`, body);

test('what is said of pages is kept for each, in a sentence, and undone as one where it was said in one go', async () => {
  const sense = (await me.at<DocumentReply>('GET', at)).senses[2]!.id;
  expect((await say({ page: 2, used: true })).says).toBe('Marked page 2 as used');
  await say({ page: 3, sense });
  await say({ page: 3, tag: 'Meadow' });
  expect(await sorted()).toEqual([
    { page: 2, used: true, check: false, sense: null, tags: [] },
    { page: 3, used: false, check: false, sense, tags: ['Meadow'] },
  ]);
  await me.at('POST', '/undo');
  expect((await sorted()).map((p) => p.page)).toEqual([2]);
  await say({ page: 2, used: false });
  expect(await sorted()).toEqual([]);
  const { entries } = await me.at<{ entries: HistoryEntry[] }>('GET', '/changes');
  expect(entries.length).toBeGreaterThan(0);
});

test('a tag is taken back by giving it again, and what is not there is refused by name', async () => {
  await say({ page: 1, tag: 'Meadow' });
  await say({ page: 1, tag: 'meadow' });
  expect(await sorted()).toEqual([]);
  const refused = async (body: object): Promise<string> =>
    (await me.call<Problem>('PATCH', `/w/${me.workspace}${at}/pages`, body)).body.detail;
  expect(await refused({ page: 4, used: true })).toContain('the file has no page 4');
  expect(await refused({ page: 1, sense: me.workspace })).toContain('there is no such sense');
  const reader = await server.person('reader', me.workspace);
  expect((await reader.call('PATCH', `/w/${me.workspace}${at}/pages`, { page: 1, used: true })).status).toBe(403);
});

test('pages taken as a source bring their tags along', async () => {
  await say({ page: 2, tag: 'Meadow' });
  const record = { type: 'personal_communication', title: 'Letter of the tenant' };
  const { jobId } = await me.at<Changed>('POST', `${at}/parts`, { pages: [2], record });
  await me.jobEnds(jobId!);
  await server.settle();
  expect(await me.titles('tag:Meadow')).toEqual(['Letter of the tenant']);
});

test('what is open, and where one is in it, is each member’s own', async () => {
  const kept = {
    open: [{ source: at.split('/')[2]!, file, title: 'Letters' }],
    places: [{ file, page: 2, zoom: 1.5, turn: 90, looked: [1, 2] }],
    last: file,
  };
  await me.at('PUT', '/open-documents', kept);
  expect(await me.at<KeptOpen>('GET', '/open-documents')).toEqual(kept);
  const other = await server.person('reader', me.workspace);
  expect(await other.at<KeptOpen>('GET', '/open-documents')).toEqual({ open: [], places: [], last: null });
});

test('the password of a locked file is kept for who opened it, and stands nowhere in the database as it was written', async () => {
  const path = `/files/${file}/password`;
  expect(await me.at('GET', path)).toEqual({ password: null });
  await me.at('PUT', path, { password: 'low-water' });
  expect(await me.at('GET', path)).toEqual({ password: 'low-water' });
  const other = await server.person('contributor', me.workspace);
  expect(await other.at('GET', path)).toEqual({ password: null });
  const { rows } = await server.app.services.db.execute('select sealed from file_passwords');
  expect(JSON.stringify(rows)).not.toContain('low-water');
  await me.at('PUT', path, { password: null });
  expect(await me.at('GET', path)).toEqual({ password: null });
  const stranger = await server.person('contributor');
  expect((await stranger.call('GET', `/w/${stranger.workspace}${path}`)).status).toBe(404);
});
