/** What was done, to a source and in the workspace. What is another member's own is not in it. */
import { sql, type SQL } from 'drizzle-orm';
import type { HistoryEntry } from '@pandecta/contract';
import type { Change } from '@pandecta/core/changes';
import type { Db } from '../database/connect.ts';
import { json, orNull, rows, text, truth } from '../database/read.ts';
import type { Actor } from '../http/authorise.ts';

/** A change this large is told of by its kind alone. */
const LARGE = 20_000;

export async function historyOfSource(db: Db, actor: Actor, sourceId: string): Promise<HistoryEntry[]> {
  const touching = sql`exists (select 1 from change_subjects cs where cs.workspace_id = c.workspace_id
    and cs.kind = 'source' and cs.subject_id = ${sourceId} and cs.change_id = c.id)`;
  const change = sql`case when octet_length(c.change::text) > ${LARGE} then jsonb_build_object('do', c.change->>'do') else c.change end`;
  return history(db, actor, touching, change, 200);
}

export async function historyOfWorkspace(db: Db, actor: Actor): Promise<HistoryEntry[]> {
  return history(db, actor, sql`true`, sql`jsonb_build_object('do', c.change->>'do')`, 100);
}

async function history(
  db: Db,
  { workspaceId, userId }: Actor,
  where: SQL,
  change: SQL,
  most: number,
): Promise<HistoryEntry[]> {
  return rows(
    db,
    { id: text(), by: text(), at: text(), says: text(), change: json<Change>(), undone: truth, undoes: orNull(text()) },
    sql`
    select c.id, u.name as by, c.at, case when c.undoes is null then c.says else 'Undone: ' || coalesce(o.says, c.says) end as says,
      ${change} as change, c.undone_by is not null and c.undone_by <> c.id as undone, c.undoes
    from changes c join users u on u.id = c.actor_id
    left join changes o on o.workspace_id = c.workspace_id and o.id = c.undoes
    where c.workspace_id = ${workspaceId} and ${where}
      and (c.owner is null or c.owner = ${userId})
    order by c.id desc limit ${most}`,
  );
}
