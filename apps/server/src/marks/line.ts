import { sql } from 'drizzle-orm';
import { list, number, orNull, text } from '../database/read.ts';
import { linePart } from '../searching/line.ts';

export const markLine = linePart({
  columns: { marks: number, glosses: orNull(list(text())) },
  select: ({
    workspace: w,
    searching,
  }) => sql`(select count(*)::int from marks m where m.workspace_id = ${w} and m.source_id = s.id and m.present) as marks,
    ${searching ? sql`(select array_agg(m.gloss) from marks m where m.workspace_id = ${w} and m.source_id = s.id and m.present and m.gloss <> '')` : sql`null::text[]`} as glosses`,
  line: ({ marks }) => ({ marks }),
  texts: ({ glosses }) => (glosses ?? []).map((gloss) => ['gloss', gloss]),
});
