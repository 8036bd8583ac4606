import { sql, type SQL } from 'drizzle-orm';
import type { ReadingState } from '@pandecta/core/changes';
import type { Db } from '../database/connect.ts';
import { orNull, rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import type { Actor } from '../access/principal.ts';

/** What is a member's own of the source `s` a query selects: `reading`, null where they said nothing, and `starred`. */
export const ownColumns = (workspace: SQL, member: string): SQL => sql`
  (select r.state from source_reading r
    where r.workspace_id = ${workspace} and r.source_id = s.id and r.user_id = ${member}) as reading,
  exists (select 1 from source_stars r
    where r.workspace_id = ${workspace} and r.source_id = s.id and r.user_id = ${member}) as starred`;

/** How far someone has read sources: null where they said nothing; what is not there is left out. */
export async function readingOf(
  db: Db,
  { workspaceId, userId }: Actor,
  ids: string[],
  lock: '' | 'for update' = '',
): Promise<Map<string, ReadingState | null>> {
  const found = await rows(
    db,
    { id: text(), state: orNull(text<ReadingState>()) },
    sql`select s.id, (select r.state from source_reading r
        where r.workspace_id = ${workspaceId} and r.source_id = s.id and r.user_id = ${userId}) as state
      from sources s where s.workspace_id = ${workspaceId} and s.id = any(${array(ids, 'uuid')}) ${sql.raw(lock)}`,
  );
  return new Map(found.map((f) => [f.id, f.state]));
}
