import { sql } from 'drizzle-orm';
import type { TagOnSource } from '@pandecta/contract';
import { json } from '../database/read.ts';
import { linePart } from '../searching/line.ts';

export const tagLine = linePart({
  columns: { tags: json<TagOnSource[] | null>() },
  select: ({
    workspace: w,
  }) => sql`(select jsonb_agg(jsonb_build_object('id', t.id, 'name', t.name, 'subject', t.subject, 'says', nullif(t.says, '')) order by t.subject, t.name) from source_tags st
    join tags t on t.workspace_id = ${w} and t.id = st.tag_id where st.workspace_id = ${w} and st.source_id = s.id) as tags`,
  line: ({ tags }) => ({ tags: tags ?? [] }),
});
