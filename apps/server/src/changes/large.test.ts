/** Changes to very many sources: carried out as a job, all of it or nothing, and undone like any other. */
import type pg from 'pg';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Changed, HistoryReply, JobInfo, JobList } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

const MANY = 10_001;
let server: TestServer;
let me: Person;
let holder: pg.PoolClient;
let ids: string[];
beforeAll(async () => {
  server = await startTestServer({ alone: true });
  me = await server.person('contributor');
  const sources = Array.from({ length: MANY }, (_, i) => ({ id: i, type: 'book', title: `Log book number ${i}` }));
  await me.import({ 'log books.json': JSON.stringify(sources) });
  const { pool } = server.app.services.database;
  holder = await pool.connect();
  ids = (await pool.query<{ id: string }>('select id from sources where workspace_id = $1', [me.workspace])).rows.map(
    (r) => r.id,
  );
});
afterAll(async () => {
  holder.release();
  await server.close();
});

const job = async (id: string): Promise<JobInfo> =>
  (await me.at<JobList>('GET', '/jobs')).jobs.find((j) => j.id === id)!;
const ended = async (id: string): Promise<JobInfo> => {
  await me.jobEnds(id);
  return job(id);
};

/** Someone else holds one of the sources while the work is done, so that the change cannot end before it. */
async function whileHeld(work: () => Promise<void>): Promise<void> {
  await holder.query('begin');
  await holder.query('select 1 from sources where workspace_id = $1 limit 1 for update', [me.workspace]);
  await work();
  await holder.query('commit');
}

test('an import of ten thousand is taken back as a job, brought back as one, and the list counts each time', async () => {
  const begun = await me.at<Changed>('POST', '/undo');
  expect(begun).toMatchObject({ changeId: null, says: expect.stringContaining('Jobs shows how far it is') as string });
  const done = await ended(begun.jobId!);
  expect(done).toMatchObject({ state: 'done', title: 'A change to 10,001 sources', done: MANY, total: MANY });
  expect(done.says).toMatch(/^Undone: /);
  expect((await me.ask('')).total).toBe(0);
  const again = await ended((await me.at<Changed>('POST', '/redo')).jobId!);
  expect(again.says).toMatch(/^Done again: /);
  expect((await me.ask('')).total).toBe(MANY);
});

test('tagging as many is a job too; until it has ended nothing of one’s own is undone, and another person goes on', async () => {
  let tagging = '';
  await whileHeld(async () => {
    const begun = await me.at<Changed>('POST', '/tagging', { ids, name: 'counted', present: true });
    tagging = begun.jobId!;
    expect(await me.call('POST', `/w/${me.workspace}/undo`)).toMatchObject({
      status: 409,
      body: { code: 'change_goes_on' },
    });
    const other = await server.person('contributor', me.workspace);
    expect(await other.call('POST', `/w/${me.workspace}/undo`)).toMatchObject({ body: { code: 'nothing_to_undo' } });
  });
  expect(await ended(tagging)).toMatchObject({ says: 'Added the tag “counted” to 10,001 sources' });
  expect((await me.ask('tag:counted')).total).toBe(MANY);
  await ended((await me.at<Changed>('POST', `/changes/${(await job(tagging)).changeId}/undo`)).jobId!);
  expect((await me.ask('tag:counted')).total).toBe(0);
});

test('cancelled before its end it has changed nothing', async () => {
  let binning = '';
  await whileHeld(async () => {
    binning = (await me.at<Changed>('POST', '/presence', { ids, to: 'bin' })).jobId!;
    await me.at('POST', `/jobs/${binning}/cancel`);
  });
  expect(await ended(binning)).toMatchObject({ state: 'cancelled', says: 'Cancelled; nothing was changed' });
  expect((await me.ask('')).total).toBe(MANY);
});

test('a server that dies after the change was written does not do it again when the job is taken up anew', async () => {
  const reading = (await me.at<Changed>('POST', '/reading', { ids, state: 'to read' })).jobId!;
  const { says } = await ended(reading);
  const history = await me.at<HistoryReply>('GET', '/changes');
  await server.app.services.database.pool.query(`update jobs set state = 'failed', says = '' where id = $1`, [reading]);
  await me.at('POST', `/jobs/${reading}/again`);
  expect(await ended(reading)).toMatchObject({ state: 'done', says });
  expect(await me.at<HistoryReply>('GET', '/changes')).toEqual(history);
});
