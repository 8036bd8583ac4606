/**
 * A source that is new, or was altered, is compared with all others within a second or so: what shares keys with it is looked up,
 * and of that the pairs worth a look are kept. The keys are committed before anything is looked up by them, so that of two
 * that are compared at once at least the later sees the other.
 */
import { sql, type SQL } from 'drizzle-orm';
import { LARGEST_BLOCK, meetingKeys, WORTH_A_LOOK } from '@pandecta/core/matching';
import type { SourceRecord } from '@pandecta/core/source';
import { transact, type Db } from '../database/connect.ts';
import { json, number, one, rows, text, truth } from '../database/read.ts';
import { array, table } from '../database/sql.ts';
import type { Following } from '../indexing/follower.ts';
import type { Workers } from '../workers/pool.ts';

/** So many are compared with one that comes, those with the most keys in common first. */
const MOST_MET = 30;

export const comparing = (db: Db, workers: Workers): Following => ({
  queue: 'compare_queue',
  share: 200,
  news: 'pair',
  work: (tx, workspaceId, ids) => compareThem(db, tx, workers, workspaceId, ids),
});

export interface Meets {
  id: string;
  keys: number[];
}

async function compareThem(db: Db, tx: Db, workers: Workers, workspaceId: string, ids: string[]): Promise<void> {
  const records = await recordsOf(tx, workspaceId, ids);
  const found = [...records.keys()];
  const keys = await workers.run('keysToMeet', [...records.values()]);
  const meets = found.map((id, i): Meets => ({ id, keys: keys[i]! }));
  await transact(db, async (own) => {
    // Seen by others at once; on disk not later than what is found by them.
    await own.execute(sql`set local synchronous_commit = off`);
    await keepKeys(own, workspaceId, meets);
  });
  const pairs = await findMet(tx, workspaceId, meets);
  const files = await findSameFile(tx, workspaceId, found);
  for (const f of files) if (!pairs.some((p) => isPair(p, f))) pairs.push(f);
  const others = await recordsOf(
    tx,
    workspaceId,
    [...new Set(pairs.map((p) => p.other))].filter((id) => !records.has(id)),
  );
  const all = new Map([...records, ...others]);
  const at = new Map([...all.keys()].map((id, i) => [id, i]));
  const known = pairs.filter((p) => at.has(p.other));
  const sure = await workers.run('weighPairs', {
    records: [...all.values()],
    pairs: known.map((p): [number, number] => [at.get(p.of)!, at.get(p.other)!]),
  });
  const likely = known.flatMap((p, i) => {
    const sameFile = files.some((f) => isPair(p, f));
    return sameFile || sure[i]! >= WORTH_A_LOOK ? [{ ...p, probability: sure[i]!, sameFile }] : [];
  });
  const these = array(ids, 'uuid');
  await tx.execute(
    sql`delete from likely_pairs where workspace_id = ${workspaceId} and (source_id = any(${these}) or other_id = any(${these}))`,
  );
  if (likely.length) await keepPairs(tx, workspaceId, likely);
}

/** What of a record matching does not look at. */
export const UNSEEN = ['abstract', 'note', 'custom'];

/** A source and one that it meets. */
interface Met {
  of: string;
  other: string;
}
const isPair = (x: Met, y: Met): boolean =>
  (x.of === y.of && x.other === y.other) || (x.of === y.other && x.other === y.of);

async function recordsOf(tx: Db, workspaceId: string, ids: string[]): Promise<Map<string, SourceRecord>> {
  const found = await rows(
    tx,
    { id: text(), record: json<SourceRecord>() },
    sql`select id, record - ${array(UNSEEN, 'text')} as record from sources
      where workspace_id = ${workspaceId} and id = any(${array(ids, 'uuid')}) and presence in ('live', 'intake')`,
  );
  return new Map(found.map((f) => [f.id, f.record]));
}

/** The keys as rows of (of, key), mixed with the workspace: the index is of all of them, and no two may share a key. */
const keysOf = (workspaceId: string, meets: Meets[]): SQL => {
  const all = meets.flatMap(({ id, keys }) => keys.map((key) => [id, key] as const));
  const u = table('u', { of: ['text', all.map((a) => a[0])], key: ['int', all.map((a) => a[1])] });
  return sql`(select u.of, u.key # w.mix as key from ${u}, (select hashint4(number) as mix from workspaces where id = ${workspaceId}) w)`;
};

export async function keepKeys(tx: Db, workspaceId: string, meets: Meets[]): Promise<void> {
  await tx.execute(sql`insert into source_meets (workspace_id, source_id, keys)
    select ${workspaceId}::uuid, k.of::uuid, array_agg(k.key) from ${keysOf(workspaceId, meets)} k group by k.of order by k.of
    on conflict (workspace_id, source_id) do update set keys = excluded.keys where source_meets.keys <> excluded.keys`);
}

/**
 * What shares keys with records, sources or not, by their ids: of each those that share the most. Keys are looked
 * up by themselves, being different in each workspace: planned with the workspace, its rows were read through one by one.
 */
export function findMet(db: Db, workspaceId: string, meets: Meets[]): Promise<Met[]> {
  return rows(
    db,
    { of: text(), other: text() },
    sql`select of, other from (
        select a.of, o.other::text as other, row_number() over (partition by a.of order by count(*) desc, o.other) as place
        from ${keysOf(workspaceId, meets)} a
        cross join lateral (select array_agg(s.source_id) filter (where s.workspace_id = ${workspaceId}) as ids from
          (select workspace_id, source_id from source_meets where keys @> array[a.key] limit ${LARGEST_BLOCK + 1}) s) b
        cross join lateral unnest(b.ids) as o(other)
        where cardinality(b.ids) <= ${LARGEST_BLOCK} and o.other::text <> a.of group by a.of, o.other) m
      where place <= ${MOST_MET}`,
  );
}

/** Sources that hold the very same file. */
function findSameFile(tx: Db, workspaceId: string, ids: string[]): Promise<Met[]> {
  return rows(
    tx,
    { of: text(), other: text() },
    sql`select distinct f.source_id as of, g.source_id as other from source_files f
      join source_files g on g.workspace_id = ${workspaceId} and g.file_id = f.file_id and g.source_id <> f.source_id
      where f.workspace_id = ${workspaceId} and f.source_id = any(${array(ids, 'uuid')})`,
  );
}

export interface LikelyPair extends Met {
  probability: number;
  sameFile: boolean;
}

export async function keepPairs(tx: Db, workspaceId: string, pairs: LikelyPair[]): Promise<void> {
  const u = table('u', {
    a: ['uuid', pairs.map((p) => p.of)],
    b: ['uuid', pairs.map((p) => p.other)],
    probability: ['real', pairs.map((p) => p.probability)],
    same_file: ['bool', pairs.map((p) => p.sameFile)],
  });
  await tx.execute(sql`insert into likely_pairs (workspace_id, source_id, other_id, probability, same_file)
    select distinct on (1, 2, 3) ${workspaceId}::uuid, least(u.a, u.b), greatest(u.a, u.b), u.probability, u.same_file from ${u} order by 1, 2, 3
    on conflict (workspace_id, source_id, other_id) do update set probability = excluded.probability, same_file = excluded.same_file, at = now()`);
}

/** How many sources of a workspace wait to be compared. */
export async function countUncompared(db: Db, workspaceId: string): Promise<number> {
  const found = await one(
    db,
    { n: number },
    sql`select count(*)::int as n from compare_queue where workspace_id = ${workspaceId} and after is null`,
  );
  return found!.n;
}

/** More are not looked through at one go. */
const MOST_PAIRS = 30_000;

/** Pairs of live sources, the surest first; @param among only of these */
export function findPairs(db: Db, workspaceId: string, among?: string[]): Promise<LikelyPair[]> {
  const ids = array(among ?? [], 'uuid');
  const only = among ? sql`and p.source_id = any(${ids}) and p.other_id = any(${ids})` : sql``;
  return rows(
    db,
    { of: text(), other: text(), probability: number, sameFile: truth },
    sql`select p.source_id as of, p.other_id as other, p.probability, p.same_file as "sameFile" from likely_pairs p
      join sources a on a.workspace_id = p.workspace_id and a.id = p.source_id and a.presence = 'live'
      join sources b on b.workspace_id = p.workspace_id and b.id = p.other_id and b.presence = 'live'
      where p.workspace_id = ${workspaceId} ${only} order by p.probability desc, p.source_id, p.other_id limit ${MOST_PAIRS}`,
  );
}

/** Changes whenever pairs are found anew. */
export async function pairsAt(db: Db, workspaceId: string): Promise<string> {
  const found = await one(
    db,
    { at: text() },
    sql`select count(*) || ' ' || coalesce(max(at)::text, '') as at from likely_pairs where workspace_id = ${workspaceId}`,
  );
  return found!.at;
}

/** More records that are no sources are not looked up by what they may share. */
const MOST_LOOKED_UP = 300;

/** What of these sources was found to be likely of one work with others. */
export function findLikely(db: Db, workspaceId: string, ids: string[]): Promise<Met[]> {
  const these = array(ids, 'uuid');
  return rows(
    db,
    { of: text(), other: text() },
    sql`select source_id as of, other_id as other from likely_pairs where workspace_id = ${workspaceId} and source_id = any(${these})
      union all select other_id, source_id from likely_pairs where workspace_id = ${workspaceId} and other_id = any(${these})`,
  );
}

/** What shares keys with records that are no sources here; of very many only with the first. */
export const findMetBy = (
  db: Db,
  workspaceId: string,
  records: { id: string; record: SourceRecord }[],
): Promise<Met[]> =>
  findMet(
    db,
    workspaceId,
    records.slice(0, MOST_LOOKED_UP).map(({ id, record }) => ({ id, keys: meetingKeys(record) })),
  );
