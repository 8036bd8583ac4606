import { sql } from 'drizzle-orm';
import { number } from '../database/read.ts';
import { visibleTo } from '../subjects/registry.ts';
import { linePart } from '../searching/line.ts';

export const markLine = linePart({
  columns: { marks: number },
  select: ({ workspace: w, viewer }) =>
    sql`(select count(*)::int from marks m where m.workspace_id = ${w} and m.source_id = s.id and ${visibleTo(viewer, 'mark', sql`m`)}) as marks`,
  line: ({ marks }) => ({ marks }),
});
