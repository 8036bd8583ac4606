/** Jobs when the ground gives way: the database goes, the server dies over them. */
import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import type { JobInfo, JobList, Problem } from '@pandecta/contract';
import { anotherServer, lineTo } from '../testing/another.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => {
  server = await startTestServer({ alone: true });
  me = await server.person('contributor');
});
afterAll(() => server.close());

const ris = (title: string): string =>
  Array.from({ length: 300 }, (_, i) => `TY  - BOOK\nTI  - ${title} tables, volume ${i}\nER  - \n`).join('');
async function begin(title: string, base = server.base): Promise<string> {
  const body = new FormData();
  body.append('file', new Blob([ris(title)]), 'tides.ris');
  const headers = { cookie: me.cookie, 'x-csrf-token': me.info.csrf };
  const reply = await fetch(`${base}/api/w/${me.workspace}/imports`, { method: 'POST', headers, body });
  return ((await reply.json()) as { jobId: string }).jobId;
}
/** Until the job stands in the middle of its work. */
async function waitsInside(): Promise<void> {
  for (let waiting: number | null = 0; !waiting;)
    waiting = (
      await run(`select 1 from pg_stat_activity where datname = current_database() and wait_event = 'PgSleep'`)
    ).rowCount;
}
const job = async (id: string): Promise<JobInfo> =>
  (await me.at<JobList>('GET', '/jobs')).jobs.find((j) => j.id === id)!;
const run = (text: string): Promise<{ rowCount: number | null }> => server.app.services.database.pool.query(text);

/** The process of the database that holds the lock of the job. */
const holderOf = async (id: string): Promise<number | undefined> =>
  (
    await server.app.services.database.pool.query<{ pid: number }>(
      `select pid from pg_locks where locktype = 'advisory' and granted and (classid::bigint << 32) | objid::bigint = hashtextextended($1, 0)`,
      [id],
    )
  ).rows[0]?.pid;

test('all its connections cut while a job runs, the server answers again and takes the job up from its beginning', async () => {
  await run(`create function wait_once() returns trigger language plpgsql as $$ begin
    if (select taken from jobs order by id desc limit 1) = 1 then perform pg_sleep(30); end if; return null; end $$`);
  await run('create trigger wait_once after insert on sources for each statement execute function wait_once()');
  const id = await begin('Tide');
  await waitsInside();
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
});

test('the one connection cut that a job works on, the one that holds its lock goes too, and the job is taken up again', async () => {
  await run('create trigger wait_once after insert on sources for each statement execute function wait_once()');
  const id = await begin('Neap');
  await waitsInside();
  const holder = await holderOf(id);
  await run(
    `select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and wait_event = 'PgSleep'`,
  );
  // Given back to the others, it would keep the lock, and nobody could take the job up.
  await expect
    .poll(async () => (await run(`select 1 from pg_stat_activity where pid = ${holder!}`)).rowCount, { timeout: 5000 })
    .toBe(0);
  await me.jobEnds(id);
  expect(await job(id)).toMatchObject({ state: 'done', says: '300 sources new' });
  await run('drop trigger wait_once on sources');
});

test('the one connection cut that holds its lock, another server begins with it beside the work that goes on, and it is done once', async () => {
  await run(`create function wait_for_another() returns trigger language plpgsql as $$ begin
    for i in 1..400 loop
      exit when (select taken from jobs order by id desc limit 1) > 1;
      perform pg_sleep(0.05);
    end loop; return null; end $$`);
  await run('create trigger wait_for_another after insert on sources for each statement execute function wait_for_another()'); // prettier-ignore
  const id = await begin('Spring');
  await waitsInside();
  const { config } = server.app.services;
  const { child } = await anotherServer(config, config.databaseUrl);
  await run(`select pg_terminate_backend(${(await holderOf(id))!})`);
  await me.jobEnds(id);
  await expect.poll(() => holderOf(id), { timeout: 20_000 }).toBeUndefined();
  child.kill('SIGKILL');
  await run('drop trigger wait_for_another on sources');
  expect(await job(id)).toMatchObject({ state: 'done', says: '300 sources new' });
  // The killed server may have held a share of the words: PostgreSQL lets go of it once it notices, and they are taken up here.
  await expect.poll(async () => (await me.ask('title:spring')).total, { timeout: 20_000 }).toBe(300);
});

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
  const id = await begin('Tide');
  await me.jobEnds(id);
  // As three servers that died over it leave it.
  await run(`update jobs set state = 'running', taken = 3, says = 'Reading tides.ris' where id = '${id}'`);
  await me.jobEnds(id);
  expect(await job(id)).toMatchObject({
    state: 'failed',
    says: 'Given up: the server ended 3 times over it, the last time at “Reading tides.ris”; nothing was added.',
  });
});

test('the database gone for a while in the middle of a job, the server lives, says so meanwhile, and does the job after', async () => {
  const { config, jobs } = server.app.services;
  // The server of the test does no more jobs: the other gets them.
  await jobs.stop();
  const line = await lineTo(config.databaseUrl);
  const { child, base } = await anotherServer(config, line.url);
  const ends = vi.fn();
  child.once('exit', ends);
  try {
    await run(`create trigger wait_once after insert on sources for each statement execute function wait_once()`);
    const id = await begin('Ebb', base);
    await waitsInside();
    await line.cut();
    const asked = await fetch(`${base}/api/w/${me.workspace}/places`, { headers: { cookie: me.cookie } });
    expect([asked.status, ((await asked.json()) as Problem).code]).toEqual([503, 'unavailable']);
    await line.mend();
    await me.jobEnds(id);
    expect(await job(id)).toMatchObject({ state: 'done', says: '300 sources new' });
    expect(ends).not.toHaveBeenCalled();
  } finally {
    child.kill('SIGKILL');
    await line.cut();
    await run('drop trigger wait_once on sources');
  }
});
