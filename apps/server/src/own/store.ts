import { sql } from 'drizzle-orm';
import type { ReadingState } from '@pandecta/core/changes';
import { rows, type Db } from '../database/connect.ts';
import { array } from '../database/sql.ts';
import type { Actor } from '../http/authorise.ts';

/** How far someone has read sources: null where they said nothing; what is not there is left out. */
export async function readingOf(
  db: Db,
  { workspaceId, userId }: Actor,
  ids: string[],
  lock: '' | 'for update' = '',
): Promise<Map<string, ReadingState | null>> {
  const found = await rows<{ id: string; state: ReadingState | null }>(
    db,
    sql`select s.id, (select r.state from source_reading r
        where r.workspace_id = ${workspaceId} and r.source_id = s.id and r.user_id = ${userId}) as state
      from sources s where s.workspace_id = ${workspaceId} and s.id = any(${array(ids, 'uuid')}) ${sql.raw(lock)}`,
  );
  return new Map(found.map((f) => [f.id, f.state]));
}
