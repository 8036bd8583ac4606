/** What is left when a server is killed in the middle of its work, and what the next one makes of it. */
import type { ChildProcess } from 'node:child_process';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { JobList, SourcePage } from '@pandecta/contract';
import { anotherServer } from '../testing/another.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
const running: ChildProcess[] = [];
beforeAll(async () => {
  server = await startTestServer({ alone: true });
  me = await server.person('steward');
});
afterAll(async () => {
  for (const child of running) child.kill('SIGKILL');
  await server.close();
});

async function another(): Promise<{ child: ChildProcess; base: string }> {
  const made = await anotherServer(server.app.services.config);
  running.push(made.child);
  return made;
}

async function until(holds: () => Promise<boolean>): Promise<void> {
  while (!(await holds())) await new Promise((resolve) => setTimeout(resolve, 25));
}

const RIS = Array.from(
  { length: 400 },
  (_, i) => `TY  - BOOK\nTI  - Tide table number ${i} of the old harbour\nKW  - tides\nER  - \n`,
).join('');

test('an import whose server is killed midway has added nothing, and the next server adds it all, once', async () => {
  const { pool } = server.app.services.database;
  // The server of the test does no jobs meanwhile, so the one to be killed gets them.
  await server.app.services.jobs.stop();
  const { child, base } = await another();
  // The last statement of the import waits: all sources are written by then, and nothing is committed.
  await pool.query(
    `create function wait_here() returns trigger language plpgsql as $$ begin perform pg_sleep(60); return new; end $$`,
  );
  await pool.query('create trigger wait_here before insert on changes for each row execute function wait_here()');
  const form = new FormData();
  form.append('file', new Blob([RIS]), 'tides.ris');
  const response = await fetch(`${base}/api/w/${me.workspace}/imports`, {
    method: 'POST',
    headers: { cookie: me.cookie, 'x-csrf-token': me.info.csrf },
    body: form,
  });
  expect(response.status).toBeLessThan(300);
  const { jobId } = (await response.json()) as { jobId: string };
  await until(async () => {
    const waiting = await pool.query(
      `select 1 from pg_stat_activity where datname = current_database() and wait_event = 'PgSleep' and query like 'insert into "changes"%'`,
    );
    return waiting.rowCount === 1;
  });

  const gone = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGKILL');
  await gone;
  await until(async () => {
    const left = await pool.query(
      `select 1 from pg_stat_activity where datname = current_database() and wait_event = 'PgSleep'`,
    );
    return left.rowCount === 0;
  });
  expect((await pool.query('select count(*)::int as n from sources')).rows).toEqual([{ n: 0 }]);
  expect((await pool.query('select state from jobs where id = $1', [jobId])).rows).toEqual([{ state: 'running' }]);

  await pool.query('drop trigger wait_here on changes');
  await another();
  await me.jobEnds(jobId);
  expect((await me.at<JobList>('GET', '/jobs')).jobs.map((j) => [j.state, j.says])).toEqual([
    ['done', '400 sources new'],
  ]);
  await until(async () => !(await me.at<SourcePage>('GET', '/sources?q=tide')).settling);
  expect((await me.at<SourcePage>('GET', '/sources?q=tide')).total).toBe(400);
  expect((await me.ask('')).total).toBe(400);
});

test('a job found done by the next server is not done again', async () => {
  const { pool } = server.app.services.database;
  const [job] = (await pool.query(`update jobs set state = 'running' returning id`)).rows as { id: string }[];
  await me.jobEnds(job!.id);
  expect((await me.ask('')).total).toBe(400);
}, 30_000);
