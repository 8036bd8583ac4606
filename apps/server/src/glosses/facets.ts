import { sql } from 'drizzle-orm';
import { partsOfEach } from '../database/merged.ts';
import type { Facets } from '../indexing/facet.ts';

/** Whether a gloss is on the whole of a source, or of one that became part of it. */
export const glossFacets: Facets = {
  kinds: [{ type: 'glossed', own: 'some' }],
  pairs: ({ workspace, ids }) => sql`select * from (
    ${partsOfEach(workspace, ids)} select distinct p.whole, coalesce('glossed ' || g.owner, 'glossed'), case when g.owner is null then 'yes' else 'own' end from parts p
      join glosses g on g.workspace_id = ${workspace} and g.source_id = p.id and g.present) glossed`,
};
