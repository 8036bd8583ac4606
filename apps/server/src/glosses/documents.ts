import { sql } from 'drizzle-orm';
import { partsOfEach } from '../database/merged.ts';
import type { DocumentsOf } from '../indexing/documents.ts';

/** Glosses on the whole of a source, and of what was merged into it. */
export const glossDocuments: DocumentsOf<'gloss'> = {
  gloss: {
    written: ({ workspace, ids }) => sql`select * from (${partsOfEach(workspace, ids)}
      select p.whole, g.id, g.owner, g.text from parts p
      join glosses g on g.workspace_id = ${workspace} and g.source_id = p.id and g.present) glossed`,
    shown: (workspace, of) => sql`select 'Gloss', null::uuid, null::int, g.text from glosses g
      where g.workspace_id = ${workspace} and g.id = ${of}.id`,
  },
};
