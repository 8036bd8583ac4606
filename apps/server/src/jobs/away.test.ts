/** Jobs when the ground gives way: the database goes, the server dies over them. */
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { JobInfo, JobList, Problem } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('contributor');
}, 60_000);
afterAll(() => server.close());

const RIS = Array.from({ length: 300 }, (_, i) => `TY  - BOOK\nTI  - Tide tables, volume ${i}\nER  - \n`).join('');
async function begin(): Promise<string> {
  const form = new FormData();
  form.append('file', new Blob([RIS]), 'tides.ris');
  return (await me.at<{ jobId: string }>('POST', '/imports', form)).jobId;
}
const job = async (id: string): Promise<JobInfo> =>
  (await me.at<JobList>('GET', '/jobs')).jobs.find((j) => j.id === id)!;
const run = (text: string): Promise<{ rowCount: number | null }> => server.app.services.database.pool.query(text);

test('all its connections cut while a job runs, the server answers again and takes the job up from its beginning', async () => {
  await run(`create function wait_once() returns trigger language plpgsql as $$ begin
    if (select taken from jobs order by id desc limit 1) = 1 then perform pg_sleep(30); end if; return null; end $$`);
  await run('create trigger wait_once after insert on sources for each statement execute function wait_once()');
  const id = await begin();
  for (let waiting: number | null = 0; !waiting;)
    waiting = (
      await run(`select 1 from pg_stat_activity where datname = current_database() and wait_event = 'PgSleep'`)
    ).rowCount;
  await run(
    `select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()`,
  );
  // Whoever asks in this moment is told so, or is answered already.
  const meanwhile = await me.call<Problem>('GET', `/w/${me.workspace}/places`);
  expect([200, 503]).toContain(meanwhile.status);
  await me.jobEnds(id);
  expect(await job(id)).toMatchObject({ state: 'done', says: '300 sources new' });
  expect((await me.ask('')).total).toBe(300);
  await run('drop trigger wait_once on sources');
}, 60_000);

test('while the database cannot be reached, one is told that nothing was changed', async () => {
  const { pool } = server.app.services.database;
  const { connect } = pool;
  pool.connect = (() => Promise.reject(Object.assign(new Error('refused'), { code: 'ECONNREFUSED' }))) as never;
  const query = pool.query.bind(pool);
  pool.query = (() => Promise.reject(Object.assign(new Error('refused'), { code: 'ECONNREFUSED' }))) as never;
  try {
    const reply = await me.call<Problem>('GET', `/w/${me.workspace}/places`);
    expect([reply.status, reply.body.code]).toEqual([503, 'unavailable']);
  } finally {
    pool.connect = connect;
    pool.query = query as never;
  }
});

test('a job over which the server ended three times is given up, and says at what', async () => {
  const id = await begin();
  await me.jobEnds(id);
  // As three servers that died over it leave it.
  await run(`update jobs set state = 'running', taken = 3, says = 'Reading tides.ris' where id = '${id}'`);
  await me.jobEnds(id);
  expect(await job(id)).toMatchObject({
    state: 'failed',
    says: 'Given up: the server ended 3 times over it, the last time at “Reading tides.ris”; nothing was added.',
  });
}, 60_000);
