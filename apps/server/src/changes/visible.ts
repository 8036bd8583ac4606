/** Which changes someone may see. */
import { sql, type SQL } from 'drizzle-orm';
import { SUBJECT_KINDS } from '@pandecta/core/changes';
import type { Viewer } from '../access/principal.ts';
import { everyonesOrOwn, SUBJECTS, visibleTo } from '../subjects/registry.ts';

/**
 * Whether the change `of` may be seen: not where it is another member's own, and by one who sees only part of the workspace
 * where all that it touched lies in that part, since its sentence names it.
 */
export function changeVisible(viewer: Viewer, of: SQL): SQL {
  const seen = everyonesOrOwn(viewer, sql`${of}.owner`);
  if (!viewer.bounds) return seen;
  const touched = sql`from change_subjects x where x.workspace_id = ${of}.workspace_id and x.change_id = ${of}.id`;
  const visible = SUBJECT_KINDS.map(
    (kind) =>
      sql`(x.kind = ${kind} and exists (select 1 from ${sql.raw(SUBJECTS.all[kind].table)} t
        where t.workspace_id = x.workspace_id and t.id = x.subject_id and ${visibleTo(viewer, kind, sql`t`)}))`,
  );
  return sql`(${seen} and exists (select 1 ${touched}) and not exists (select 1 ${touched} and not (${sql.join(visible, sql` or `)})))`;
}
