import { sql } from 'drizzle-orm';
import { list, text } from '../database/read.ts';
import { linePart } from '../searching/line.ts';
import { seenBy } from './store.ts';

export const placeLine = linePart({
  columns: { places: list(text()) },
  select: ({
    workspace: w,
    viewer,
  }) => sql`array(select cs.collection_id::text from collection_sources cs join collections c on c.workspace_id = ${w} and c.id = cs.collection_id and ${seenBy(viewer)}
    where cs.workspace_id = ${w} and cs.source_id = s.id order by c.name) as places`,
  line: ({ places }) => ({ places }),
});
