/** Lists, orders and counts of what matches a question. */
import { sql } from 'drizzle-orm';
import type { NarrowReply } from '@pandecta/contract';
import { KINDS, type Kind } from '@pandecta/core/source';
import { array, one, rows, type Db } from '../database/connect.ts';
import { orderBy, parts, type Question } from './match.ts';

/** How many candidates are ranked; see docs/decisions/search.md. */
const CANDIDATES = 1000;
/** The most ids an order holds. */
const MOST = 250_000;

const byRelevance = (q: Question): boolean => q.sort[0]?.key === 'relevance' && q.compiled.rank !== '';

export async function count(db: Db, q: Question): Promise<number> {
  const found = await one<{ n: number }>(
    db,
    sql`with ${parts(q)} select count(*)::int as n from source_sort m where ${q.where}`,
  );
  return found?.n ?? 0;
}

/** The first ids in the order asked for. */
export async function first(db: Db, q: Question, limit: number): Promise<string[]> {
  if (byRelevance(q)) return (await ranked(db, q)).slice(0, limit);
  // Without an index condition the order's own index gives the first rows at once; with one, match first, sort after.
  const query = q.plain
    ? sql`select m.source_id as id from source_sort m where ${q.where} order by ${orderBy(q)} limit ${limit}`
    : sql`with ${parts(q)}, matched as materialized (select m.* from source_sort m where ${q.where})
        select m.source_id as id from matched m order by ${orderBy(q)} limit ${limit}`;
  return (await rows<{ id: string }>(db, query)).map((r) => r.id);
}

/** All ids in the order asked for. */
export async function order(db: Db, q: Question): Promise<string[]> {
  const rest = await rows<{ id: string }>(
    db,
    sql`with ${parts(q)}, matched as materialized (select m.* from source_sort m where ${q.where})
    select m.source_id as id from matched m order by ${orderBy(q)} limit ${MOST}`,
  );
  const ids = rest.map((r) => r.id);
  if (!byRelevance(q)) return ids;
  const top = await ranked(db, q);
  const taken = new Set(top);
  return [...top, ...ids.filter((id) => !taken.has(id))];
}

/** Two stages: candidates, those with the words in their title first; then those few are ranked. */
async function ranked(db: Db, q: Question): Promise<string[]> {
  const candidates = q.compiled.tsquery
    ? sql`with ${parts(q)}, titled as materialized (
        select m.source_id from source_sort m where ${q.where} and m.source_id in (select source_id from source_text where vector @@ ${q.compiled.titles}::tsquery) limit ${CANDIDATES}),
      candidates as materialized (select source_id from titled union (select m.source_id from source_sort m where ${q.where} limit ${CANDIDATES}) limit ${CANDIDATES})`
    : sql`with candidates as materialized (select m.source_id from source_sort m where ${q.where} limit ${CANDIDATES})`;
  const found = await rows<{ id: string }>(
    db,
    sql`${candidates}
    select c.source_id as id from candidates c join source_text t on t.workspace_id = ${q.scope.workspaceId} and t.source_id = c.source_id
    order by ts_rank('{0.1, 0.2, 0.6, 1.0}', t.vector, ${q.compiled.rank}::tsquery, 1) desc, c.source_id desc`,
  );
  return found.map((r) => r.id);
}

const FACETS: [type: string, name: string, most: number][] = [
  ['kind', 'Kind', 45],
  ['tag', 'Tag', 40],
  ['subject', 'Subject term', 40],
  ['reading', 'Reading', 4],
  ['file', 'File', 4],
  ['person', 'Person', 40],
];
const WORDS: Record<string, Record<string, string>> = {
  reading: { 'to read': 'To read', reading: 'Reading', read: 'Read' },
  file: { text: 'Has full text', 'image only': 'Image only, no text', other: 'Other file', none: 'No file' },
};

export async function narrow(db: Db, q: Question, withoutYears: Question): Promise<NarrowReply> {
  const [counts, years, total] = await Promise.all([
    rows<{ type: string; key: string; name: string | null; n: number }>(
      db,
      sql`
      with ${parts(q)}, matched as materialized (select m.source_id from source_sort m where ${q.where}),
      counted as materialized (select f.id, count(*)::int as n from matched m
        join source_facets sf on sf.workspace_id = ${q.scope.workspaceId} and sf.source_id = m.source_id, unnest(sf.ids) as f(id) group by f.id),
      named as (select d.type, d.key, c.n, row_number() over (partition by d.type order by c.n desc, d.key) as place
        from counted c join facets d on d.id = c.id where d.type = any(${array(
          FACETS.map((f) => f[0]),
          'text',
        )}))
      select n.type, n.key, t.name, n.n from named n
      left join tags t on n.type in ('tag', 'subject') and t.workspace_id = ${q.scope.workspaceId} and t.id::text = n.key
      where place <= 45 order by n.n desc, coalesce(t.name, n.key)`,
    ),
    rows<{ year: number; n: number }>(
      db,
      sql`with ${parts(withoutYears)} select m.year, count(*)::int as n from source_sort m where ${withoutYears.where} and m.year is not null group by 1 order by 1`,
    ),
    count(db, q),
  ]);
  return {
    total,
    years: years.map((y) => [y.year, y.n]),
    facets: FACETS.map(([type, name, most]) => ({
      type,
      name,
      values: counts
        .filter((c) => (c.type === type && c.key !== 'none') || (type === 'file' && c.type === type))
        .slice(0, most)
        .map((c) => ({
          key: c.key,
          name: c.name ?? (type === 'kind' ? KINDS[c.key as Kind]?.name : WORDS[type]?.[c.key]) ?? c.key,
          count: c.n,
        })),
    })),
  };
}
