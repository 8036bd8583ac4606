/** Ties between sources and what they bear or stand in: tags, collections, files, stars. */
import { sql, type SQL } from 'drizzle-orm';
import { idsOf, type Db } from './connect.ts';
import { rows, text } from './read.ts';
import { array } from './sql.ts';

/** A table of ties by its name and the column of what is tied to. */
export interface Ties {
  table: SQL;
  column: SQL;
}

/**
 * Ties sources to a thing, or unties them.
 * @returns those for which that was not so already
 */
export async function tie(
  tx: Db,
  workspaceId: string,
  { table, column }: Ties,
  to: string,
  { sources, present }: { sources: string[]; present: boolean },
): Promise<string[]> {
  const ids = array(sources, 'uuid');
  const query = present
    ? sql`insert into ${table} (workspace_id, source_id, ${column})
        select ${workspaceId}::uuid, s.id, ${to}::uuid from sources s where s.workspace_id = ${workspaceId} and s.id = any(${ids})
        on conflict do nothing returning source_id as id`
    : sql`delete from ${table} where workspace_id = ${workspaceId} and ${column} = ${to} and source_id = any(${ids})
        returning source_id as id`;
  return idsOf(await rows(tx, { id: text() }, query));
}
