import { sql } from 'drizzle-orm';
import { list, orNull, text } from '../database/read.ts';
import { linePart } from '../searching/line.ts';

/** Glosses in which words are shown that were looked for: on the source, or on what was merged into it. */
export const glossLine = linePart({
  columns: { wholeGlosses: orNull(list(text())) },
  select: ({ workspace: w, searching }) =>
    searching
      ? sql`(select array_agg(g.text) from glosses g where g.workspace_id = ${w} and g.present and (g.source_id = s.id
          or g.source_id in (select m.id from sources m where m.workspace_id = ${w} and m.merged_into = s.id and m.merged_into is not null))) as "wholeGlosses"`
      : sql`null::text[] as "wholeGlosses"`,
  line: () => ({}),
  texts: ({ wholeGlosses }) => (wholeGlosses ?? []).map((gloss) => ['gloss', gloss]),
});
