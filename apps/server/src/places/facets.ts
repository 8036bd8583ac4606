import { inArray, sql } from 'drizzle-orm';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import type { Facets } from '../indexing/facet.ts';
import { collections } from './tables.ts';

/** In which collections a source stands, those above them included; or in none. */
export const placeFacets: Facets = {
  kinds: [
    { type: 'in', offered: { name: 'Collection', most: 60 }, many: true, names },
    { type: 'filed', many: true, names },
    { type: 'loose', many: true },
  ],
  pairs: ({ workspace, ids }) => sql`select c.id, coalesce(f.type, 'loose'), coalesce(f.key, 'yes')
    from chosen c left join (
      select distinct cs.source_id as id, 'in' as type, a.ancestor_id::text as key from collection_sources cs
      join collection_ancestors a on a.workspace_id = ${workspace} and a.collection_id = cs.collection_id
      where cs.workspace_id = ${workspace} and cs.source_id = any(${ids})) f on f.id = c.id
    union all select cs.source_id, 'filed', cs.collection_id::text from collection_sources cs
      join collections k on k.workspace_id = ${workspace} and k.id = cs.collection_id and k.present
      where cs.workspace_id = ${workspace} and cs.source_id = any(${ids})`,
};

async function names(db: Db, workspaceId: string, keys: string[]): Promise<Map<string, string>> {
  const { id, name } = collections;
  const found = await within(db, workspaceId).all(collections, { id, name }, inArray(id, keys));
  return new Map(found.map((f) => [f.id, f.name]));
}
