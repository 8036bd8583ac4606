import { inArray, sql } from 'drizzle-orm';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import type { Facets } from '../indexing/facet.ts';
import { tags } from './tables.ts';

export const tagFacets: Facets = {
  kinds: [
    { type: 'tag', offered: { name: 'Tag', most: 40 }, many: true, subject: 'tag', names },
    { type: 'subject', offered: { name: 'Subject term', most: 40 }, many: true, subject: 'tag', names },
    { type: 'tagged' },
  ],
  pairs: ({ workspace, ids }) => sql`select st.source_id, case when t.subject then 'subject' else 'tag' end, t.id::text
    from source_tags st join tags t on t.workspace_id = ${workspace} and t.id = st.tag_id
    where st.workspace_id = ${workspace} and st.source_id = any(${ids})
    union all select distinct st.source_id, 'tagged', 'yes' from source_tags st
      join tags t on t.workspace_id = ${workspace} and t.id = st.tag_id and not t.subject
      where st.workspace_id = ${workspace} and st.source_id = any(${ids})`,
};

async function names(db: Db, workspaceId: string, keys: string[]): Promise<Map<string, string>> {
  const found = await within(db, workspaceId).all(tags, { id: tags.id, name: tags.name }, inArray(tags.id, keys));
  return new Map(found.map((f) => [f.id, f.name]));
}
