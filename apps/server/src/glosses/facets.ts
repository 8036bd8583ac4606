import { sql } from 'drizzle-orm';
import type { Facets } from '../indexing/facet.ts';

/** Whether a gloss is on the whole of a source, or of one that became part of it. */
export const glossFacets: Facets = {
  kinds: [{ type: 'glossed' }],
  pairs: ({ workspace, ids }) => sql`select * from (
    with recursive parts (whole, id) as (select w.id, w.id from unnest(${ids}) w(id)
      union select p.whole, s.id from sources s join parts p on s.merged_into = p.id where s.workspace_id = ${workspace})
    select distinct p.whole, 'glossed', 'yes' from parts p
      join glosses g on g.workspace_id = ${workspace} and g.source_id = p.id and g.present) glossed`,
};
