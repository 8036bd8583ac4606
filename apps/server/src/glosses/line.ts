import { sql } from 'drizzle-orm';
import { partsOf } from '../database/merged.ts';
import { list, orNull, text } from '../database/read.ts';
import { linePart } from '../searching/line.ts';

/** Glosses in which words are shown that were looked for. */
export const glossLine = linePart({
  columns: { wholeGlosses: orNull(list(text())) },
  select: ({ workspace: w, searching }) =>
    searching
      ? sql`(${partsOf(w, sql`select s.id`)} select array_agg(g.text) from parts p
          join glosses g on g.workspace_id = ${w} and g.source_id = p.id and g.present) as "wholeGlosses"`
      : sql`null::text[] as "wholeGlosses"`,
  line: () => ({}),
  texts: ({ wholeGlosses }) => (wholeGlosses ?? []).map((gloss) => ['gloss', gloss]),
});
