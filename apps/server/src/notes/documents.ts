import { sql } from 'drizzle-orm';
import { partsOfEach } from '../database/merged.ts';
import type { DocumentsOf } from '../indexing/documents.ts';

/** Notes, on each source they speak of. */
export const noteDocuments: DocumentsOf<'note'> = {
  note: {
    written: ({ workspace, ids }) => sql`select * from (${partsOfEach(workspace, ids)}
      select distinct on (t.id) p.whole, t.id, n.owner, n.title || E'\n' || n.plain from parts p
      join note_sources t on t.workspace_id = ${workspace} and t.source_id = p.id
      join notes n on n.workspace_id = t.workspace_id and n.id = t.note_id and n.present order by t.id) noted`,
    shown: (workspace, of) => sql`select 'Note', t.file_id, t.page, n.title || E'\n' || n.plain from note_sources t
      join notes n on n.workspace_id = t.workspace_id and n.id = t.note_id
      where t.workspace_id = ${workspace} and t.id = ${of}.id`,
  },
};
