import { sql } from 'drizzle-orm';
import { idsOf } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import type { ListsOf } from '../lists/kinds.ts';

export const headingLists: ListsOf<'heading'> = {
  heading: {
    /** Where a heading counts as another, or no longer does, the sources of its notes are narrowed by the other. */
    async follows(tx, workspaceId, heading) {
      const found = await rows(
        tx,
        { id: text() },
        sql`select distinct s.source_id as id from note_sources s join notes n on n.workspace_id = s.workspace_id and n.id = s.note_id
          where s.workspace_id = ${workspaceId} and n.present and n.about @> array[${heading}::uuid]`,
      );
      return found.length ? { facets: idsOf(found) } : {};
    },
  },
};
