import { sql } from 'drizzle-orm';
import type { Facets } from '../indexing/facet.ts';

/** In which collections a source stands, those above them included; or in none. */
export const placeFacets: Facets = {
  kinds: [
    { type: 'in', many: true },
    { type: 'loose', many: true },
  ],
  pairs: ({ workspace, ids }) => sql`select c.id, coalesce(f.type, 'loose'), coalesce(f.key, 'yes')
    from chosen c left join (
      select distinct cs.source_id as id, 'in' as type, a.ancestor_id::text as key from collection_sources cs
      join collection_ancestors a on a.workspace_id = ${workspace} and a.collection_id = cs.collection_id
      where cs.workspace_id = ${workspace} and cs.source_id = any(${ids})) f on f.id = c.id`,
};
