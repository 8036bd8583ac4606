/** Reads columns out of the derived tables, each as one value of bytes: rows of text would cost many times as much. */
import { sql, type SQL } from 'drizzle-orm';
import { NO_YEAR, PRESENCES } from '@pandecta/core/narrowing';
import { one, rows, type Db } from '../../database/connect.ts';
import { array } from '../../database/sql.ts';
import type { SentRows } from './thread.ts';

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

async function read(db: Db, where: SQL): Promise<SentRows> {
  const bytes = (value: SQL): SQL => sql`coalesce(string_agg(${value}, ''::bytea), ''::bytea)`;
  const found = await one<SentRows>(
    db,
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
  const found = await rows<{ id: number; type: string }>(
    db,
    sql`select id, type from facets where workspace_id = ${workspaceId} and id = any(${array(ids, 'int')})`,
  );
  return found.map((f) => [f.id, f.type]);
}

/** One past the highest number a source of the workspace has. */
export async function readSize(db: Db, workspaceId: string): Promise<number> {
  const found = await one<{ size: number }>(
    db,
    sql`select coalesce(max(number) + 1, 0) as size from source_sort where workspace_id = ${workspaceId}`,
  );
  return found!.size;
}

/** Ranks by a text key within each presence, by the language's order, which PostgreSQL's index keeps. */
export async function readRanks(db: Db, workspaceId: string, key: string): Promise<{ numbers: Buffer; ranks: Buffer }> {
  const parts = await Promise.all(
    ['live', 'bin'].map((presence) =>
      one<{ numbers: Buffer; ranks: Buffer }>(
        db,
        sql`
      select coalesce(string_agg(int4send(r.number), ''::bytea), ''::bytea) as numbers, coalesce(string_agg(int4send(r.rank), ''::bytea), ''::bytea) as ranks
      from (select number, (dense_rank() over (order by ${sql.identifier(key)}))::int as rank from source_sort
        where workspace_id = ${workspaceId} and presence = ${presence}) r`,
      ),
    ),
  );
  return {
    numbers: Buffer.concat(parts.map((p) => p!.numbers)),
    ranks: Buffer.concat(parts.map((p) => p!.ranks)),
  };
}
