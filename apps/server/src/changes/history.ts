/** What was done, to a source and in the workspace. */
import { sql } from 'drizzle-orm';
import type { HistoryEntry } from '@pandecta/contract';
import { rows, type Db } from '../database/connect.ts';

export async function historyOfSource(db: Db, workspaceId: string, sourceId: string): Promise<HistoryEntry[]> {
  return rows<HistoryEntry>(
    db,
    sql`
    select c.id, u.name as by, c.at, case when c.undoes is null then c.says else 'Undone: ' || coalesce(o.says, c.says) end as says,
      case when octet_length(c.change::text) > 20000 then jsonb_build_object('do', c.change->>'do') else c.change end as change,
      c.undone_by is not null and c.undone_by <> c.id as undone, c.undoes
    from change_sources cs join changes c on c.workspace_id = cs.workspace_id and c.id = cs.change_id
    join users u on u.id = c.actor_id
    left join changes o on o.workspace_id = c.workspace_id and o.id = c.undoes
    where cs.workspace_id = ${workspaceId} and cs.source_id = ${sourceId} order by c.id desc limit 200`,
  );
}

export async function historyOfWorkspace(db: Db, workspaceId: string): Promise<HistoryEntry[]> {
  return rows<HistoryEntry>(
    db,
    sql`
    select c.id, u.name as by, c.at, case when c.undoes is null then c.says else 'Undone: ' || c.says end as says,
      jsonb_build_object('do', c.change->>'do') as change, c.undone_by is not null and c.undone_by <> c.id as undone, c.undoes
    from changes c join users u on u.id = c.actor_id where c.workspace_id = ${workspaceId} order by c.id desc limit 100`,
  );
}
