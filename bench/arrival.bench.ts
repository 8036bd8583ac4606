/**
 * Milliseconds a source that comes takes to be compared with all that are here (`BENCH_SOURCES`, 100,000 unless it is said),
 * beside reading the same number of records by their ids; and whether it finds the one it is a faulty copy of.
 */
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { meetingKeys } from '@pandecta/core/matching';
import type { SourceRecord } from '@pandecta/core/source';
import { Chance } from '@pandecta/demo/random';
import { comparing, findMet, keepKeys } from '@pandecta/server/check/compare';
import { transact } from '@pandecta/server/database/connect';
import { reserveCitationKeys } from '@pandecta/server/records/citation-keys';
import { insertSources } from '@pandecta/server/records/store';
import { formatNumber } from '@pandecta/core/wording';
import { spoilUnseen } from './matching/faults-unseen.ts';
import { quantile, synthetic, table } from './measure.ts';
import { startBench } from './server.ts';

const COUNT = Number(process.env.BENCH_SOURCES ?? 100_000);
const ARRIVALS = 300;
const SHARE = 10_000;
const bench = await startBench(`arrival-${COUNT}`);
const { db, database, workers } = bench.app.services;
const actor = { workspaceId: bench.workspace.id, userId: bench.userId };
const insert = (id: string, record: SourceRecord) => ({ id, record, provenance: {} });
const client = await database.pool.connect();
await client.query('set statement_timeout = 0');
const { rows } = await client.query('select count(*)::int as n from source_meets where workspace_id = $1', [
  actor.workspaceId,
]);
const have = (rows[0] as { n: number }).n;
if (have < COUNT) {
  // An index is built sooner than it is kept.
  await client.query('drop index if exists source_meets_keys');
  for (let done = have; done < COUNT; done += SHARE) {
    const made = synthetic(SHARE, 0, 5000 + done).map((s) => insert(uuidv7(), s.record));
    const list = await reserveCitationKeys(db, actor.workspaceId, made);
    await transact(db, async (tx) => {
      await tx.execute(sql`set local statement_timeout = 0`);
      await insertSources(tx, actor, list, { presence: 'live', importId: null });
      await keepKeys(tx, actor.workspaceId, list.map(({ id, record }) => ({ id, keys: meetingKeys(record) }))); // prettier-ignore
    });
    process.stderr.write(`\r${formatNumber(done + SHARE)} sources `);
  }
  await client.query('create index source_meets_keys on source_meets using gin (keys) with (fastupdate = false)');
  await client.query('vacuum analyze sources, source_meets');
}
client.release(true);

const chance = new Chance(11);
const copied = synthetic(SHARE, 0, 5000);
const ms: Record<string, number[]> = { compared: [], keys: [], 'looked up': [], read: [] };
let [met, kept] = [0, 0];
for (let i = 0; i < ARRIVALS; i += 1) {
  const { record: like } = chance.pick(copied);
  const record = spoilUnseen(like, chance, 2);
  const one = insert(uuidv7(), record);
  await insertSources(db, actor, await reserveCitationKeys(db, actor.workspaceId, [one]), {
    presence: 'live',
    importId: null,
  });
  const timed = async <T>(name: string, work: () => Promise<T> | T): Promise<T> => {
    const start = performance.now();
    const done = await work();
    ms[name]!.push(performance.now() - start);
    return done;
  };
  const keys = await timed('keys', () => meetingKeys(record));
  const found = await timed('looked up', () => findMet(db, actor.workspaceId, [{ id: one.id, keys }]));
  met += found.length;
  await timed('compared', () => transact(db, (tx) => comparing(db, workers).work(tx, actor.workspaceId, [one.id])));
  await timed('read', () => db.execute(sql`select id, record from sources where workspace_id = ${actor.workspaceId} and id = any(${sql.param(found.map((f) => f.other))}::uuid[])`)); // prettier-ignore
  const title = like.title ?? '';
  const pairs =
    await db.execute(sql`select 1 from likely_pairs p join sources s on s.workspace_id = p.workspace_id and s.id in (p.source_id, p.other_id) and s.id <> ${one.id}
    where p.workspace_id = ${actor.workspaceId} and (p.source_id = ${one.id} or p.other_id = ${one.id}) and s.record->>'title' = ${title}`);
  if (pairs.rows.length) kept += 1;
}
table(
  `One that comes, at ${formatNumber(COUNT)} sources: ${(met / ARRIVALS).toFixed(1)} met, the copied one found ${((kept / ARRIVALS) * 100).toFixed(1)} %`,
  ['step', 'median ms', '95 % ms'],
  Object.entries(ms).map(([name, list]) => [name, quantile(list, 0.5).toFixed(2), quantile(list, 0.95).toFixed(2)]),
);
await bench.close();
