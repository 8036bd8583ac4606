/** Sources as their archives keep them: by archive, collection, box and folder. */
import { sql } from 'drizzle-orm';
import type { ArchivesReply } from '@pandecta/contract';
import { withoutMarkup } from '@pandecta/core/source';
import type { Actor } from '../access/principal.ts';
import type { Db } from '../database/connect.ts';
import { number, rows, text } from '../database/read.ts';
import { inBounds } from '../subjects/registry.ts';

/** More than a page of a browser shows well. */
const MOST = 5000;

export async function archives(db: Db, viewer: Actor): Promise<ArchivesReply> {
  const w = viewer.workspaceId;
  const said = (field: string) => sql`coalesce(s.record->>${field}, '')`;
  const found = await rows(
    db,
    { id: text(), title: text(), archive: text(), collection: text(), location: text(), pages: number, taken: number, sorted: number }, // prettier-ignore
    sql`select s.id, coalesce(s.record->>'title', 'Untitled') as title, ${said('archive')} as archive, ${said('archive_collection')} as collection,
        ${said('archive_location')} as location, coalesce(f.pages, 0)::int as pages, coalesce(f.taken, 0)::int as taken, coalesce(f.sorted, 0)::int as sorted
      from sources s
      left join lateral (
        -- The scan as it came stands beside the one with its text: the longer counts, not both.
        select max(f.pages) as pages,
          max((select count(distinct p.page) from files t cross join lateral jsonb_array_elements_text(t.taken_from->'pages') p(page)
            where t.workspace_id = f.workspace_id and t.taken_from->>'file' = f.id::text)) as taken,
          max((select count(*) from page_states p where p.workspace_id = f.workspace_id and p.file_id = f.id)) as sorted
        from source_files sf join files f on f.workspace_id = sf.workspace_id and f.id = sf.file_id
        where sf.workspace_id = s.workspace_id and sf.source_id = s.id and f.pages > 0) f on true
      where s.workspace_id = ${w} and s.presence = 'live' and ${inBounds(viewer, sql`s.id`)}
        and (s.record ? 'archive' or s.record ? 'archive_location' or s.record ? 'archive_collection')
      order by ${said('archive')} collate "pandecta", ${said('archive_collection')} collate "pandecta", ${said('archive_location')} collate "pandecta",
        s.record->>'title' collate "pandecta", s.id
      limit ${MOST + 1}`,
  );
  return {
    sources: found.slice(0, MOST).map((s) => ({ ...s, title: withoutMarkup(s.title) })),
    more: found.length > MOST,
  };
}
