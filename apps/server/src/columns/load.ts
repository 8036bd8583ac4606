/** Reads columns out of the derived tables, each as one value of bytes: rows of text would cost many times as much. */
import { sql, type SQL } from 'drizzle-orm';
import { NO_YEAR, PRESENCES, type Placing } from '@pandecta/core/narrowing';
import type { Presence } from '@pandecta/core/changes';
import type { Db } from '../database/connect.ts';
import { bytes, number, one, rows, text, truth } from '../database/read.ts';
import { array } from '../database/sql.ts';
import type { SentRows } from '../workers/columns.ts';

/** How many sources are read with one query. */
export const SHARE = 50_000;

/** What the derived tables say of the sources with these numbers; numbers no source has any more are left out. */
export function readNumbers(db: Db, workspaceId: string, numbers: number[]): Promise<SentRows> {
  return read(db, sql`ss.workspace_id = ${workspaceId} and ss.number = any(${array(numbers, 'int')})`);
}

/** The same for a range of numbers, its end left out. */
export function readRange(db: Db, workspaceId: string, from: number, to: number): Promise<SentRows> {
  return read(db, sql`ss.workspace_id = ${workspaceId} and ss.number >= ${from} and ss.number < ${to}`);
}

const SENT = {
  numbers: bytes,
  ids: bytes,
  presences: bytes,
  years: bytes,
  added: bytes,
  changed: bytes,
  facets: bytes,
} satisfies Record<keyof SentRows, unknown>;

async function read(db: Db, where: SQL): Promise<SentRows> {
  const bytes = (value: SQL): SQL => sql`coalesce(string_agg(${value}, ''::bytea), ''::bytea)`;
  const found = await one(
    db,
    SENT,
    sql`
    select ${bytes(sql`int4send(r.number)`)} as numbers, ${bytes(sql`uuid_send(r.source_id)`)} as ids,
      ${bytes(sql`int4send(array_position(${array(PRESENCES, 'text')}, r.presence) - 1)`)} as presences,
      ${bytes(sql`int4send(coalesce(r.year, ${sql.raw(String(NO_YEAR))}))`)} as years,
      ${bytes(sql`int8send((extract(epoch from r.added) * 1000)::bigint)`)} as added,
      ${bytes(sql`int8send((extract(epoch from r.changed) * 1000)::bigint)`)} as changed,
      ${bytes(sql`array_send(r.ids)`)} as facets
    from (select ss.number, ss.source_id, ss.presence, ss.year, ss.added, ss.changed, coalesce(sf.ids, '{}') as ids from source_sort ss
      left join source_facets sf on sf.workspace_id = ss.workspace_id and sf.source_id = ss.source_id where ${where}) r`,
  );
  return found!;
}

/** The types of facets. */
export async function readFacets(db: Db, workspaceId: string, ids: number[]): Promise<[number, string][]> {
  const found = await rows(
    db,
    { id: number, type: text() },
    sql`select id, type from facets where workspace_id = ${workspaceId} and id = any(${array(ids, 'int')})`,
  );
  return found.map((f) => [f.id, f.type]);
}

/** One past the highest number a source of the workspace has. */
export async function readSize(db: Db, workspaceId: string): Promise<number> {
  const found = await one(
    db,
    { size: number },
    sql`select coalesce(max(number) + 1, 0) as size from source_sort where workspace_id = ${workspaceId}`,
  );
  return found!.size;
}

/** Ranks by a text key within a presence, by the language's order, which PostgreSQL's index keeps. */
export async function readRanks(
  db: Db,
  workspaceId: string,
  key: string,
  presence: Presence,
): Promise<{ numbers: Uint8Array; ranks: Uint8Array }> {
  const found = await one(
    db,
    { numbers: bytes, ranks: bytes },
    sql`
    select coalesce(string_agg(int4send(r.number), ''::bytea), ''::bytea) as numbers, coalesce(string_agg(int4send(r.rank), ''::bytea), ''::bytea) as ranks
    from (select number, (dense_rank() over (order by ${sql.identifier(key)}) - 1)::int as rank from source_sort
      where workspace_id = ${workspaceId} and presence = ${presence}) r`,
  );
  return found!;
}

/** Where these numbers stand by a text key among the others of the presence, each found by way of the index. */
export async function readPlacings(
  db: Db,
  workspaceId: string,
  key: string,
  presence: Presence,
  numbers: number[],
): Promise<{ placings: Placing[]; gone: number[] }> {
  const by = sql.identifier(key);
  const moved = array(numbers, 'int');
  const others = sql`o.workspace_id = ${workspaceId} and o.presence = ${presence} and o.number <> all(${moved})`;
  const placings = await rows(
    db,
    { number, tied: truth, after: number, same: number },
    sql`
    select m.number, coalesce(m.value = lag(m.value) over (order by m.value, m.number), false) as tied,
      coalesce((select o.number from source_sort o where ${others} and o.${by} < m.value order by o.${by} desc limit 1), -1) as after,
      coalesce((select o.number from source_sort o where ${others} and o.${by} = m.value limit 1), -1) as same
    from (select number, ${by} as value from source_sort where workspace_id = ${workspaceId} and presence = ${presence}
      and number = any(${moved})) m
    order by m.value, m.number`,
  );
  const placed = new Set(placings.map((p) => p.number));
  return { placings, gone: numbers.filter((n) => !placed.has(n)) };
}

/** A query that gives the numbers of sources as `number`. */
export interface NumberSet {
  query: SQL;
  /** What it asks of the text index, where it asks nothing else. */
  words?: { vector: 'vector' | 'fields'; tsquery: string };
}

/** The numbers of sources whose words, or words of fields, match. The lexemes lead with the workspace: a condition on
 * its column would only tempt the planner to the primary key. */
export function wordSet(vector: 'vector' | 'fields', tsquery: string): NumberSet {
  return {
    query: sql`select number from source_text where ${sql.identifier(vector)} @@ ${tsquery}::tsquery`,
    words: { vector, tsquery },
  };
}

/** The numbers of the sources whose ids a query gives. */
export const sourceSet = (workspaceId: string, ids: SQL): NumberSet => ({
  query: sql`select number from source_sort where workspace_id = ${workspaceId} and source_id in (${ids})`,
});

/** What a set's query gives, as one value: rows of text would cost three times as much. */
export async function readSet(db: Db, { query }: NumberSet): Promise<Uint8Array> {
  const found = await one(
    db,
    { numbers: bytes },
    sql`select coalesce(string_agg(int4send(s.number), ''::bytea), ''::bytea) as numbers from (${query}) s`,
  );
  return found!.numbers;
}

/** Those of the numbers that belong to a set of words: each is looked at by itself. */
export async function readMembers(
  db: Db,
  workspaceId: string,
  { words }: NumberSet,
  numbers: number[],
): Promise<number[]> {
  const found = await rows(
    db,
    { number: number },
    sql`
    select s.number from source_sort s cross join lateral (
      select ${sql.identifier(words!.vector)} as words from source_text t
      where t.workspace_id = ${workspaceId} and t.source_id = s.source_id offset 0) t
    where s.workspace_id = ${workspaceId} and s.number = any(${array(numbers, 'int')}) and t.words @@ ${words!.tsquery}::tsquery`,
  );
  return found.map((f) => f.number);
}
