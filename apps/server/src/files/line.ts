/** How many files and pages a source has, which is opened first, and why that has no text to be searched. */
import { sql } from 'drizzle-orm';
import { number, orNull, text } from '../database/read.ts';
import { linePart } from '../searching/line.ts';

export const fileLine = linePart({
  columns: { files: number, pages: number, file_id: orNull(text()), trouble: orNull(text()) },
  select: () => sql`coalesce(f.files, 0) as files, coalesce(f.pages, 0) as pages, f.file_id, f.trouble`,
  join: (w) =>
    sql`left join lateral (select count(*)::int as files, sum(fl.pages)::int as pages, (array_agg(fl.id order by (fl.id = s.main_file) desc nulls last, (fl.state = 'text') desc, fl.pages desc) filter (where fl.address is null))[1] as file_id,
        case when not bool_or(fl.state = 'text') then (array_agg(fl.state order by (fl.id = s.main_file) desc nulls last, fl.pages desc) filter (where fl.state in ('image only', 'encrypted', 'damaged')))[1] end as trouble
      from source_files sf join files fl on fl.workspace_id = ${w} and fl.id = sf.file_id
      where sf.workspace_id = ${w} and sf.source_id = s.id) f on true`,
  line: ({ files, pages, file_id: fileId, trouble }) => ({
    files,
    pages,
    fileId,
    ...(trouble && { fileTrouble: trouble }),
  }),
});
