/** Consecutive edits of one field by one person, as the history tells them. */
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { Changed, HistoryEntry, Problem, SourceDetail, VersionsReply } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let other: Person;
let source: string;
beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('contributor');
  other = await server.person('contributor', me.workspace);
});
afterAll(() => server.close());
beforeEach(async () => {
  source = (await me.at<Changed>('POST', '/sources', { record: { type: 'book', title: 'Tides', note: 'Low' } })).id!;
});

const edit = (fields: object, person = me): Promise<Changed> =>
  person.at<Changed>('PATCH', `/sources/${source}`, { fields });
const history = async (): Promise<HistoryEntry[]> =>
  (await me.at<{ entries: HistoryEntry[] }>('GET', `/sources/${source}/history`)).entries;
const title = async (): Promise<string | undefined> =>
  (await me.at<SourceDetail>('GET', `/sources/${source}`)).record.title;
const titlesTold = async (): Promise<unknown[]> =>
  (await history()).flatMap(({ change }) => (change.do === 'edit' ? [change.fields.title] : []));

test('edits of one field a moment apart are one entry, which says what stood before the first', async () => {
  for (const next of ['Tide', 'Tides of', 'Tides of 1871']) await edit({ title: next });
  expect(await titlesTold()).toEqual([{ before: 'Tides', after: 'Tides of 1871' }]);
  const { versions } = await me.at<VersionsReply>('GET', `/sources/${source}/versions`);
  expect(versions.map((v) => v.record.title)).toEqual(['Tides']);
  await me.at('POST', '/undo');
  expect(await title()).toBe('Tides');
  await me.at('POST', '/redo');
  expect(await title()).toBe('Tides of 1871');
});

test('who knows the first of them by its id undoes the entry it became part of', async () => {
  const first = await edit({ title: 'Tide' });
  const second = await edit({ title: 'Tides of' });
  expect(first.changeId).not.toBe(second.changeId);
  const other = await edit({ note: 'High' });
  await me.at('POST', `/changes/${first.changeId}/undo`);
  expect(await title()).toBe('Tides');
  const again = await me.call<Problem>('POST', `/w/${me.workspace}/changes/${second.changeId}/undo`);
  expect(again.body.code).toBe('already_undone');
  expect(other.changeId).toEqual(expect.any(String));
});

test.each<[string, () => Promise<unknown>]>([
  ['another field was edited between them', () => edit({ note: 'High' })],
  ['another person touched the source between them', () => edit({ note: 'High' }, other)],
  ['the person did something else between them', () => me.at('POST', '/stars', { ids: [source], present: true })],
  ['the first was undone and done again', async () => (await me.at('POST', '/undo'), me.at('POST', '/redo'))],
  [
    'more than five minutes lie between them',
    () =>
      server.app.services.database.db.execute(
        sql`update changes set at = at - interval '6 minutes' where workspace_id = ${me.workspace}`,
      ),
  ],
])('they stay two where %s', async (_, between) => {
  await edit({ title: 'Tide' });
  await between();
  await edit({ title: 'Tides of' });
  expect((await titlesTold()).filter(Boolean).length).toBeGreaterThanOrEqual(2);
});

test('a field that stands again as it did first keeps both entries', async () => {
  await edit({ title: 'Tide' });
  await edit({ title: 'Tides' });
  expect(await titlesTold()).toHaveLength(2);
});

test('two who edit one field at once leave each their own entry', async () => {
  await edit({ title: 'Tide' });
  await edit({ title: 'Tides of' }, other);
  await edit({ title: 'Tides of 1871' });
  expect(await titlesTold()).toHaveLength(3);
});
