import { inArray, sql } from 'drizzle-orm';
import { within } from '../database/within.ts';
import type { Facets } from '../indexing/facet.ts';
import { senses } from './tables.ts';

/** In which senses something is marked in a source. */
export const markFacets: Facets = {
  kinds: [
    {
      type: 'sense',
      offered: { name: 'Marked as', most: 20 },
      many: true,
      async names(db, workspaceId, keys) {
        const found = await within(db, workspaceId).all(
          senses,
          { id: senses.id, name: senses.name },
          inArray(senses.id, keys),
        );
        return new Map(found.map((f) => [f.id, f.name]));
      },
    },
    // With a gloss before those that are only marked.
    { type: 'marked', levels: { sort: 'marks', keys: ['gloss', 'mark'] } },
  ],
  pairs: ({ workspace, ids }) => sql`select distinct m.source_id, 'sense', m.sense_id::text from marks m
    where m.workspace_id = ${workspace} and m.source_id = any(${ids}) and m.present
    union all select distinct m.source_id, 'marked', h from marks m, unnest(array['mark', case when m.gloss <> '' then 'gloss' end]) h
      where m.workspace_id = ${workspace} and m.source_id = any(${ids}) and m.present and h is not null`,
};
