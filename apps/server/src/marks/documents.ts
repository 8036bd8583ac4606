import { sql } from 'drizzle-orm';
import type { DocumentsOf } from '../indexing/documents.ts';

/** The glosses of marks. */
export const markDocuments: DocumentsOf<'mark'> = {
  mark: {
    written: ({ workspace, ids }) => sql`select m.source_id, m.id, m.owner, m.gloss from marks m
      where m.workspace_id = ${workspace} and m.source_id = any(${ids}) and m.present and m.gloss <> ''`,
    shown: (workspace, of) => sql`select 'Gloss', m.file_id, m.page, m.gloss from marks m
      where m.workspace_id = ${workspace} and m.id = ${of}.id`,
  },
};
