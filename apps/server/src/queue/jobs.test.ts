/** Long work seen from outside: it can be cancelled, can fail, and is nobody else's. */
import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import type { JobInfo, JobList } from '@pandecta/contract';
import { forgetEnded } from '../gathering/prepare/readings.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => {
  server = await startTestServer({ alone: true });
  me = await server.person('contributor');
});
afterAll(() => server.close());

const RIS = 'TY  - BOOK\nTI  - Tide tables of the old harbour\nER  - \n';

async function begin(who: Person, ris = RIS): Promise<string> {
  const form = new FormData();
  form.append('file', new Blob([ris]), 'tides.ris');
  return (await who.at<{ jobId: string }>('POST', '/imports', form)).jobId;
}
const job = async (who: Person, id: string): Promise<JobInfo | undefined> =>
  (await who.at<JobList>('GET', '/jobs')).jobs.find((j) => j.id === id);

/** Whoever has written into a table waits there until a job has the wish. @returns what takes the hold away */
async function holdAt(table: string, wish: 'cancel' | 'hold'): Promise<() => Promise<unknown>> {
  const { pool } = server.app.services.database;
  const name = `wait_for_${wish}`;
  await pool.query(`create function ${name}() returns trigger language plpgsql as $$ begin
    for i in 1..200 loop
      exit when exists (select 1 from jobs where ${wish});
      perform pg_sleep(0.05);
    end loop; return null; end $$`);
  await pool.query(`create trigger ${name} after insert on ${table} for each statement execute function ${name}()`);
  return () => pool.query(`drop trigger ${name} on ${table}`);
}

/** Until the trigger of a test holds the job. */
async function someoneWaits(): Promise<void> {
  const { pool } = server.app.services.database;
  const waiting = `select 1 from pg_stat_activity where datname = current_database() and wait_event = 'PgSleep'`;
  while (!(await pool.query(waiting)).rowCount);
}

test('cancelled in the middle of writing, it adds nothing and says so; the same file can be brought in again', async () => {
  // The first sources wait to be written until the wish to cancel is there.
  const letGo = await holdAt('sources', 'cancel');
  const id = await begin(me);
  await someoneWaits();
  await me.at('POST', `/jobs/${id}/cancel`);
  await me.jobEnds(id);
  await letGo();
  expect(await job(me, id)).toMatchObject({ state: 'cancelled', says: 'Cancelled; nothing was added' });
  expect((await me.ask('')).total).toBe(0);
  expect(await me.import({ 'tides.ris': RIS })).toMatchObject({ added: 1 });
});

test('failed, it says in words that nothing was added, without what went wrong inside', async () => {
  const { pool } = server.app.services.database;
  await pool.query(`create function refuse() returns trigger language plpgsql as $$ begin
    raise exception 'a secret of the database'; end $$`);
  await pool.query('create trigger refuse before insert on sources for each row execute function refuse()');
  const id = await begin(me, RIS.replace('old', 'new'));
  await me.jobEnds(id);
  await pool.query('drop trigger refuse on sources');
  const ended = (await job(me, id))!;
  expect(ended.state).toBe('failed');
  expect(ended.says).toContain('nothing was added');
  expect(ended.says).not.toContain('secret');
  expect((await me.ask('new')).total).toBe(0);
  // What was in its way is gone: begun anew, it does what it was to do, once.
  await me.at('POST', `/jobs/${id}/again`);
  await me.jobEnds(id);
  expect(await job(me, id)).toMatchObject({ state: 'done', says: '1 source new' });
  await server.settle();
  expect((await me.ask('new')).total).toBe(1);
  const more = await me.call<{ code: string }>('POST', `/w/${me.workspace}/jobs/${id}/again`);
  expect([more.status, more.body.code]).toEqual([409, 'not_failed']);
});

test('paused, it rests with what it had read, is none of the running, and goes on from there', async () => {
  const { pool } = server.app.services.database;
  const letGo = await holdAt('import_readings', 'hold');
  const form = new FormData();
  for (let n = 0; n < 8; n += 1) form.append('file', new Blob([RIS.replace('old', `very old ${n}`)]), `${n}.ris`);
  const { jobId: id } = await me.at<{ jobId: string }>('POST', '/imports', form);
  await someoneWaits();
  await me.at('POST', `/jobs/${id}/pause`);
  for (let state; state !== 'paused';) state = (await job(me, id))!.state;
  await letGo();
  const kept = await pool.query('select prepared from import_readings');
  expect(kept.rowCount).toBeGreaterThan(0);
  // Another goes before it.
  expect(await me.import({ 'other.ris': RIS.replace('old', 'other') })).toMatchObject({ added: 1 });
  expect((await job(me, id))!.state).toBe('paused');
  // What was read is not read again.
  await pool.query(
    `update import_readings set prepared = jsonb_set(prepared, '{candidates,0,record,title}', '"Read before"')`,
  );
  await me.at('POST', `/jobs/${id}/resume`);
  await me.jobEnds(id);
  expect(await job(me, id)).toMatchObject({ state: 'done', says: expect.stringContaining('new') as string });
  await server.settle();
  expect((await me.titles('title:"Read before"')).length).toBeGreaterThan(0);
  // What those that were cancelled or failed had read goes in a quiet hour.
  const left = async (): Promise<number | null> => (await pool.query('select 1 from import_readings')).rowCount;
  expect(await left()).toBe(1);
  await forgetEnded(server.app.services.db);
  expect(await left()).toBe(0);
});

test('while gatherings of one member go on and on, another’s begins and ends', async () => {
  const { pool } = server.app.services.database;
  const other = await server.person('contributor', me.workspace);
  // What is slow waits in the middle of being read until the lock is let go.
  await pool.query(`create function wait_slow() returns trigger language plpgsql as $$ begin
    if new.prepared::text like '%slow as the tide%' then
      for i in 1..600 loop exit when not exists (select 1 from pg_locks where locktype = 'advisory' and objid = 77); perform pg_sleep(0.05); end loop;
    end if; return new; end $$`);
  await pool.query(
    'create trigger wait_slow before insert on import_readings for each row execute function wait_slow()',
  );
  const holder = await pool.connect();
  await holder.query('select pg_advisory_lock(77)');
  const slow = [];
  for (const n of [1, 2, 3, 4]) slow.push(await begin(me, RIS.replace('old', `slow as the tide ${n}`)));
  await someoneWaits();
  expect(await other.import({ 'quick.ris': RIS.replace('old', 'quick') })).toMatchObject({ added: 1 });
  expect((await job(me, slow[0]!))!.state).toBe('running');
  await holder.query('select pg_advisory_unlock(77)');
  holder.release();
  for (const id of slow) await me.jobEnds(id);
  expect((await Promise.all(slow.map((id) => job(me, id)))).map((j) => j!.state)).toEqual(Array(4).fill('done'));
  await pool.query('drop trigger wait_slow on import_readings');
});

test('one that was queued by a server that died before it told anyone is taken up by itself', async () => {
  const { jobs } = server.app.services;
  const untold = vi.spyOn(jobs as unknown as { send(): Promise<void> }, 'send').mockResolvedValue();
  const notBegun = vi.spyOn(jobs as unknown as { wake(): void }, 'wake').mockReturnValue();
  const id = await begin(me, RIS.replace('old', 'untold'));
  untold.mockRestore();
  notBegun.mockRestore();
  await me.jobEnds(id);
  expect((await job(me, id))!.state).toBe('done');
});

test('paused, it can be cancelled; a change of many sources cannot be paused', async () => {
  const id = await begin(me, RIS.replace('old', 'cancelled'));
  await me.at('POST', `/jobs/${id}/pause`);
  await me.at('POST', `/jobs/${id}/cancel`);
  await me.jobEnds(id);
  expect(['cancelled', 'done']).toContain((await job(me, id))!.state);
});

test('is seen and cancelled by those of its workspace alone, and a reader only sees it', async () => {
  const id = await begin(me, RIS.replace('old', 'outer'));
  await me.jobEnds(id);
  const stranger = await server.person('steward');
  expect(await job(stranger, id)).toBeUndefined();
  const strange = await stranger.call<{ code: string }>('POST', `/w/${stranger.workspace}/jobs/${id}/cancel`);
  expect([strange.status, strange.body.code]).toEqual([404, 'no_such_job']);
  const reader = await server.person('reader', me.workspace);
  expect(await job(reader, id)).toMatchObject({ state: 'done', says: '1 source new' });
  expect((await reader.call('POST', `/w/${me.workspace}/jobs/${id}/cancel`)).status).toBe(403);
  await me.at('POST', `/jobs/${id}/cancel`);
  expect(await job(me, id)).toMatchObject({ state: 'done' });
});
