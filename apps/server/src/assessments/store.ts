import { eq, sql, type SQL } from 'drizzle-orm';
import type { LabelCount, NewLabel } from '@pandecta/contract';
import type { Entry } from '@pandecta/core/changes';
import { idsOf, type Db } from '../database/connect.ts';
import { number, orNull, rows, text, type Column } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { sourceLabels } from './tables.ts';

export interface LabelValue extends Entry, Required<NewLabel> {
  name: string;
}

/** What the workspace says of the source `s` a query selects: `rating` and `recheck`, null where nothing; `labels`, by their names. */
export const stateColumns = (workspace: SQL): SQL => sql`
  (select r.rating from source_ratings r where r.workspace_id = ${workspace} and r.source_id = s.id) as rating,
  (select r.reason from source_rechecks r where r.workspace_id = ${workspace} and r.source_id = s.id) as recheck,
  (select jsonb_agg(jsonb_build_object('id', e.id, 'name', e.value->>'name', 'letter', e.value->>'letter', 'tint', e.value->>'tint', 'says', e.value->>'says') order by e.value->>'name')
    from source_labels sl join entries e on e.workspace_id = ${workspace} and e.list = 'label' and e.id = sl.label_id
    where sl.workspace_id = ${workspace} and sl.source_id = s.id) as labels`;

/** What one thing is said of sources, null where nothing is; a source that is not there is left out. */
async function saidOf<T>(
  db: Db,
  workspaceId: string,
  ids: string[],
  value: SQL,
  as: Column<T>,
  lock: '' | 'for update',
): Promise<Map<string, T | null>> {
  const found = await rows(
    db,
    { id: text(), value: orNull(as) },
    sql`select s.id, (${value}) as value
      from sources s where s.workspace_id = ${workspaceId} and s.id = any(${array(ids, 'uuid')}) ${sql.raw(lock)}`,
  );
  return new Map(found.map((f) => [f.id, f.value]));
}

export const ratingsOf = (
  db: Db,
  workspaceId: string,
  ids: string[],
  lock: '' | 'for update' = '',
): Promise<Map<string, number | null>> => {
  const value = sql`select r.rating from source_ratings r where r.workspace_id = ${workspaceId} and r.source_id = s.id`;
  return saidOf(db, workspaceId, ids, value, number, lock);
};

/** Why sources are to be checked again. */
export const reasonsOf = (
  db: Db,
  workspaceId: string,
  ids: string[],
  lock: '' | 'for update' = '',
): Promise<Map<string, string | null>> => {
  const value = sql`select r.reason from source_rechecks r where r.workspace_id = ${workspaceId} and r.source_id = s.id`;
  return saidOf(db, workspaceId, ids, value, text(), lock);
};

/** The sources that bear a label. */
export async function labelled(db: Db, workspaceId: string, label: string): Promise<string[]> {
  const { sourceId, labelId } = sourceLabels;
  return idsOf(await within(db, workspaceId).all(sourceLabels, { id: sourceId }, eq(labelId, label)));
}

/** How many of the sources bear each label. */
export function labelCounts(db: Db, workspaceId: string, ids: string[]): Promise<LabelCount[]> {
  return rows(
    db,
    { id: text(), name: text(), letter: text(), tint: text(), says: text(), count: number },
    sql`select e.id, e.value->>'name' as name, e.value->>'letter' as letter, e.value->>'tint' as tint, e.value->>'says' as says,
        count(*)::int as count
      from source_labels sl join entries e on e.workspace_id = ${workspaceId} and e.list = 'label' and e.id = sl.label_id
      where sl.workspace_id = ${workspaceId} and sl.source_id = any(${array(ids, 'uuid')})
      group by e.id, e.value order by 6 desc, 2`,
  );
}
