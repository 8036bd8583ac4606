/** An import that takes long, and people who go on working meanwhile. */
import type pg from 'pg';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { NarrowReply, SourcePage } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let gate: pg.PoolClient;
const GATE = 77;

beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('steward');
  await me.import({ 'here.ris': 'TY  - BOOK\nTI  - Pilot book\nAU  - Ferrow, Solveig\nER  - \n' });
  // An import (whose statements have no limit of time) waits at this gate after deriving its first sources.
  const { pool } = server.app.services.database;
  await pool.query(`create function wait_at_gate() returns trigger language plpgsql as $$ begin
    if current_setting('statement_timeout') = '0' then perform pg_advisory_xact_lock(${GATE}); end if; return null; end $$`);
  await pool.query(
    'create trigger wait_at_gate after insert on source_facets for each statement execute function wait_at_gate()',
  );
  gate = await pool.connect();
}, 60_000);
afterAll(async () => {
  gate.release(true);
  await server.close();
});

const facet = async (type: string): Promise<[string, number][]> =>
  (await me.at<NarrowReply>('GET', '/narrow')).facets
    .find((f) => f.type === type)!
    .values.map((v) => [v.name, v.count]);

test('while an import is being written, others edit and find; then all of it is there', async () => {
  await gate.query('select pg_advisory_lock($1)', [GATE]);
  const form = new FormData();
  form.append(
    'file',
    new Blob(['TY  - MAP\nTI  - Chart of the bar\nAU  - Wold, Caspar\nKW  - soundings\nER  - \n']),
    'm.ris',
  );
  const { jobId } = await me.at<{ jobId: string }>('POST', '/imports', form);
  for (let waiting = 0; waiting === 0;) {
    const found = await gate.query<{ n: number }>(
      `select count(*)::int as n from pg_locks l join pg_database d on d.oid = l.database
       where d.datname = current_database() and l.locktype = 'advisory' and l.objid = ${GATE} and not l.granted`,
    );
    waiting = found.rows[0]!.n;
  }

  const [book] = (await me.ask('')).rows;
  await me.at('POST', '/tagging', { ids: [book!.id], name: 'in the meantime', present: true });
  const made = await me.at<{ id: string }>('POST', '/sources', {
    record: { type: 'thesis', title: 'Written meanwhile' },
  });
  expect(made.id).toBeTruthy();
  expect((await me.ask('tag:"in the meantime"')).rows.map((r) => r.id)).toEqual([book!.id]);
  expect(await me.titles('')).toEqual(['Pilot book', 'Written meanwhile']);
  expect(await facet('kind')).toEqual(
    expect.arrayContaining([
      ['Book', 1],
      ['Thesis', 1],
    ]),
  );

  await gate.query('select pg_advisory_unlock($1)', [GATE]);
  await me.jobEnds(jobId);
  // The import's facets were given their numbers before the tag's, and are seen after it.
  expect(await me.titles('')).toEqual(['Chart of the bar', 'Pilot book', 'Written meanwhile']);
  expect(await facet('kind')).toEqual(
    expect.arrayContaining([
      ['Map', 1],
      ['Book', 1],
      ['Thesis', 1],
    ]),
  );
  expect(await facet('person')).toEqual(expect.arrayContaining([['Wold, Caspar', 1]]));
  expect(await facet('subject')).toEqual([['soundings', 1]]);
  await server.settle();
  expect((await me.at<SourcePage>('GET', '/sources?q=bar')).total).toBe(1);
}, 30_000);

test('one who would wait too long for another is told so, and nothing is changed', async () => {
  const [book] = (await me.ask('title:"Pilot book"')).rows;
  const { pool } = server.app.services.database;
  const other = await pool.connect();
  await other.query('begin');
  await other.query('select 1 from source_facets where source_id = $1 for update', [book!.id]);
  const reply = await me.call<{ code: string; detail: string }>('POST', `/w/${me.workspace}/tagging`, {
    ids: [book!.id],
    name: 'too late',
    present: true,
  });
  await other.query('rollback');
  other.release();
  expect([reply.status, reply.body.code]).toEqual([503, 'busy']);
  expect(reply.body.detail).toContain('Nothing was changed');
  expect((await me.ask('tag:"too late"')).total).toBe(0);
}, 30_000);
