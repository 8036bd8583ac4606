import { sql } from 'drizzle-orm';
import type { DocumentsOf } from '../indexing/documents.ts';

export const pageDocuments: DocumentsOf<'page'> = {
  page: {
    shown: (workspace, of) => sql`select '', p.file_id, p.number, p.text from pages p
      where p.workspace_id = ${workspace} and p.file_id = ${of}.id and p.number = ${of}.part`,
  },
};
