import { sql } from 'drizzle-orm';
import { list, orNull, text } from '../database/read.ts';
import { linePart } from '../searching/line.ts';

/** Glosses in which words are shown that were looked for. */
export const glossLine = linePart({
  columns: { wholeGlosses: orNull(list(text())) },
  select: ({ workspace: w, searching }) =>
    searching
      ? sql`(select array_agg(g.text) from glosses g where g.workspace_id = ${w} and g.source_id = s.id and g.present) as "wholeGlosses"`
      : sql`null::text[] as "wholeGlosses"`,
  line: () => ({}),
  texts: ({ wholeGlosses }) => (wholeGlosses ?? []).map((gloss) => ['gloss', gloss]),
});
