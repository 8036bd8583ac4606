import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { BinState, Changed, PlacesReply } from '@pandecta/contract';
import { commit } from '../changes/service.ts';
import { number, rows } from '../database/read.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';
import { makePdf } from '../testing/pdf.ts';
import { purge } from './purge.ts';

let server: TestServer;
let me: Person;
let ids: string[];
beforeAll(async () => {
  server = await startTestServer({ alone: true });
});
afterAll(() => server.close());
beforeEach(async () => {
  me = await server.person('steward');
  await me.import({ 'hours.pdf': await makePdf([['Hours of the lower gate', 'The keeper shut the gate at dusk.']]) });
  await me.at('POST', '/sources', { record: { type: 'book', title: 'Silt' } });
  ids = (await me.ask('')).rows.map((r) => r.id);
});
const toBin = (those: string[]): Promise<Changed> => me.at<Changed>('POST', '/presence', { ids: those, to: 'bin' });
const bin = (): Promise<BinState> => me.at<BinState>('GET', '/bin');

test('the bin says of each who removed it, from where and until when it waits; restored it is back there', async () => {
  const { id } = await me.at<Changed>('POST', '/collections', { name: 'Chapter 2' });
  await me.at('POST', '/filing', { ids, collections: [id], present: true });
  await toBin(ids.slice(0, 1));
  const [row] = (await me.ask('', '&scope=bin')).rows;
  expect(row).toMatchObject({ places: [id], bin: { by: me.info.name } });
  expect(new Date(row!.bin!.goes).getTime() - new Date(row!.bin!.at).getTime()).toBe(30 * 86_400_000);
  await me.at('POST', '/presence', { ids: [ids[0]], to: 'live' });
  expect((await me.at<PlacesReply>('GET', '/places')).collections[0]!.count).toBe(2);
});

test('emptied, all that is in it goes for good with what only it held, and the history says who did it', async () => {
  await toBin(ids);
  expect(await bin()).toEqual({ sources: 2, files: 1, marks: 0, days: 30 });
  const done = await me.at<Changed>('POST', '/bin/empty', { seen: 2 });
  expect([done.says, done.changeId]).toEqual(['Emptied the bin: 2 sources went for good', null]);
  expect([(await bin()).sources, (await me.ask('', '&scope=bin')).total]).toEqual([0, 0]);
  const history = await me.at<{ entries: { id: string; says: string }[] }>('GET', '/changes');
  expect(history.entries[0]!.says).toBe(done.says);
  const undone = await me.at<Changed>('POST', `/changes/${history.entries[0]!.id}/undo`);
  expect(undone.says).toContain('Nothing was left to undo');
});

test('a bin of more sources than are removed at once is emptied by a job, which leaves nothing and cannot be undone', async () => {
  const { db } = server.app.services;
  const w = me.workspace;
  await toBin(ids);
  await db.execute(sql`insert into sources (workspace_id, id, record, presence, added_by)
    select ${w}, gen_random_uuid(), '{"type":"book","title":"Many"}', 'bin', ${me.info.userId} from generate_series(1, 10001)`);
  const { jobId, says } = await me.at<Changed>('POST', '/bin/empty', { seen: 10_003 });
  expect(says).toContain('Emptying the bin of 10,003 sources');
  await me.jobEnds(jobId!);
  const [left] = await rows(db, { n: number }, sql`select count(*)::int as n from sources where workspace_id = ${w}`);
  expect([left!.n, (await bin()).sources]).toEqual([0, 0]);
  const { entries } = await me.at<{ entries: { id: string; says: string }[] }>('GET', '/changes');
  expect(entries[0]!.says).toBe('Emptied the bin: 10,003 sources went for good');
  expect((await me.at<Changed>('POST', `/changes/${entries[0]!.id}/undo`)).says).toContain('Nothing was left');
});

test('what was merged into a source that went for good comes back when the merge is undone, with its marks; later it goes too', async () => {
  const { db, storage } = server.app.services;
  const [withFile] = (await me.ask('')).rows.filter((r) => r.fileId);
  const other = ids.find((id) => id !== withFile!.id)!;
  const { senses } = await me.at<{ senses: { id: string }[] }>(
    'GET',
    `/sources/${withFile!.id}/files/${withFile!.fileId}`,
  );
  await me.at('POST', `/sources/${withFile!.id}/files/${withFile!.fileId}/marks`, {
    page: 1,
    sense: senses[0]!.id,
    quote: { exact: 'the gate', prefix: '', suffix: '' },
    rects: [],
  });
  const merge = { do: 'merge', source: withFile!.id, into: other, marks: [] as string[], present: true } as const;
  const actor = { workspaceId: me.workspace, userId: me.info.userId };
  const { changeId } = await commit(server.app.services, actor, merge);
  await toBin([other]);
  await me.at('POST', '/bin/empty', { seen: 1 });
  await purge(db, storage);
  await me.at('POST', `/changes/${changeId}/undo`);
  const back = (await me.ask('')).rows;
  expect(back.map((r) => [r.id, r.fileId, r.marks])).toEqual([[withFile!.id, withFile!.fileId, 1]]);
  // Once more, and nobody wants it back.
  const into = (await me.at<Changed>('POST', '/sources', { record: { type: 'book', title: 'Another' } })).id!;
  await commit(server.app.services, actor, { ...merge, into });
  await toBin([into]);
  await me.at('POST', '/bin/empty', { seen: 1 });
  await db.execute(
    sql`update sources set changed_at = now() - interval '31 days' where workspace_id = ${me.workspace}`,
  );
  expect(await purge(db, storage)).toBe(1);
});

test('nothing goes that was moved there since one looked', async () => {
  await toBin(ids.slice(0, 1));
  await toBin(ids.slice(1));
  const refused = await me.call<{ code: string }>('POST', `/w/${me.workspace}/bin/empty`, { seen: 1 });
  expect([refused.body.code, (await bin()).sources]).toEqual(['bin_grew', 2]);
});

test('a source goes by itself after the days that are set, and no sooner', async () => {
  const { db, storage } = server.app.services;
  await me.at('PUT', '/bin/days', { days: 60 });
  expect((await toBin(ids.slice(0, 1))).says).toContain('kept there 60 days');
  await db.execute(sql`update sources set changed_at = now() - interval '31 days' where id = ${ids[0]}`);
  await purge(db, storage);
  expect((await bin()).sources).toBe(1);
  await db.execute(sql`update sources set changed_at = now() - interval '61 days' where id = ${ids[0]}`);
  await purge(db, storage);
  expect((await bin()).sources).toBe(0);
});
