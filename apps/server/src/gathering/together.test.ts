/** An import that takes long, and people who go on working meanwhile. */
import { sql } from 'drizzle-orm';
import type pg from 'pg';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Changed, NarrowReply, SourcePage } from '@pandecta/contract';
import { transact } from '../database/connect.ts';
import { derive } from '../indexing/derive.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let gate: pg.PoolClient;
const GATE = 77;

beforeAll(async () => {
  server = await startTestServer({ alone: true });
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
});
afterAll(async () => {
  gate.release(true);
  await server.close();
});

const facet = async (type: string): Promise<[string, number][]> =>
  (await me.at<NarrowReply>('GET', '/narrow')).facets
    .find((f) => f.type === type)!
    .values.map((v) => [v.name, v.count]);

/** Begins an import, and comes back when it waits at the gate. @returns its job */
async function heldImport(ris: string, collection?: string): Promise<string> {
  await gate.query('select pg_advisory_lock($1)', [GATE]);
  const form = new FormData();
  form.append('through', 'straight');
  if (collection) form.append('destination', JSON.stringify({ collections: [collection], tags: [], reading: null }));
  form.append('file', new Blob([ris]), 'held.ris');
  const { jobId } = await me.at<{ jobId: string }>('POST', '/imports', form);
  for (let waiting = 0; waiting === 0;) {
    const found = await gate.query<{ n: number }>(
      `select count(*)::int as n from pg_locks l join pg_database d on d.oid = l.database
       where d.datname = current_database() and l.locktype = 'advisory' and l.objid = ${GATE} and not l.granted`,
    );
    waiting = found.rows[0]!.n;
  }
  return jobId;
}

test('while an import is being written, others edit and find; then all of it is there', async () => {
  const jobId = await heldImport('TY  - MAP\nTI  - Chart of the bar\nAU  - Wold, Caspar\nKW  - soundings\nER  - \n');
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

test('an import into a collection that is moved meanwhile counts where the collection stands then', async () => {
  const made = (name: string): Promise<Changed> => me.at<Changed>('POST', '/collections', { name });
  const [cases, law] = [(await made('Cases')).id!, (await made('Law')).id!];
  const jobId = await heldImport('TY  - CASE\nTI  - Ottery v Northmere\nER  - \n', cases);
  await me.at('POST', '/placements', { collection: cases, parent: law });
  expect((await me.ask('', `&collection=${law}`)).total).toBe(0);
  await gate.query('select pg_advisory_unlock($1)', [GATE]);
  await me.jobEnds(jobId);
  expect(await me.titles('', `&collection=${law}`)).toEqual(['Ottery v Northmere']);
}, 30_000);

test('many people arrange, file and tag at once: each is done or told to try again, and nothing comes out wrong', async () => {
  const { rows } = await me.ask('');
  const names = Array.from({ length: 6 }, (_, i) => `Chapter ${i}`);
  const ids = (await Promise.all(names.map((name) => me.at<Changed>('POST', '/collections', { name })))).map(
    (c) => c.id!,
  );
  const replies = await Promise.all(
    ids.flatMap((id, i) => [
      me.call('POST', `/w/${me.workspace}/filing`, { ids: rows.map((r) => r.id), collections: [id], present: true }),
      me.call('POST', `/w/${me.workspace}/placements`, { collection: id, parent: ids[(i + 1) % 3] }),
      me.call('POST', `/w/${me.workspace}/tagging`, {
        ids: [rows[i % rows.length]!.id],
        name: `tag ${i}`,
        present: true,
      }),
    ]),
  );
  // 409: a collection under itself.
  expect(replies.map((r) => r.status).filter((s) => ![200, 409, 503].includes(s))).toEqual([]);
  const { db } = server.app.services;
  const facets = (): Promise<unknown> =>
    db.execute(
      sql`select source_id, (select array_agg(x order by x) from unnest(ids) x) as ids from source_facets order by 1`,
    );
  const { rows: maintained } = (await facets()) as { rows: unknown[] };
  await transact(db, (tx) => derive(tx, me.workspace, { facets: rows.map((r) => r.id) }));
  expect(((await facets()) as { rows: unknown[] }).rows).toEqual(maintained);
});

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
