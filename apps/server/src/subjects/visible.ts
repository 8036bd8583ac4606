/** Whether subjects that are named are there for whoever names them. */
import { sql } from 'drizzle-orm';
import type { SubjectKind } from '@pandecta/core/changes';
import type { Viewer } from '../access/principal.ts';
import { idsOf, type Db } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { Refusal } from '../errors.ts';
import { SUBJECTS, visibleTo } from './registry.ts';

/** The ids that exist and that the reader may see, in the order given. */
export async function visibleIds(db: Db, viewer: Viewer, kind: SubjectKind, ids: string[]): Promise<string[]> {
  if (!ids.length) return [];
  const found = await rows(
    db,
    { id: text() },
    sql`select t.id from ${sql.raw(SUBJECTS.all[kind].table)} t
      where t.workspace_id = ${viewer.workspaceId} and t.id = any(${array(ids, 'uuid')}) and ${visibleTo(viewer, kind, sql`t`)}`,
  );
  const seen = new Set(idsOf(found));
  return ids.filter((id) => seen.has(id));
}

/** @throws Refusal where one is not there, or may not be seen: both are answered alike */
export async function refuseInvisible(db: Db, viewer: Viewer, kind: SubjectKind, id: string): Promise<void> {
  if (!(await visibleIds(db, viewer, kind, [id])).length) throw new Refusal(SUBJECTS.all[kind].missing);
}
