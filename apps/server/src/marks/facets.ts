import { sql } from 'drizzle-orm';
import type { Facets } from '../indexing/facet.ts';
import { namesOfEntries } from '../lists/store.ts';
import { countedSense } from './store.ts';

/** In which senses something is marked in a source. */
export const markFacets: Facets = {
  kinds: [
    {
      type: 'sense',
      offered: { name: 'Marked as', most: 20 },
      many: true,
      own: 'some',
      names: namesOfEntries('sense'),
    },
    // With a gloss before those that are only marked.
    { type: 'marked', own: 'some', levels: { sort: 'marks', keys: ['gloss', 'mark'] } },
  ],
  pairs: ({ workspace, ids }) => sql`select * from (
    with of as (select m.source_id, m.owner, m.gloss <> '' as glossed, ${countedSense}::text as sense
      from marks m
      where m.workspace_id = ${workspace} and m.source_id = any(${ids}) and m.present),
    said (source_id, type, key, owner) as (select source_id, 'sense', sense, owner from of
      union all select source_id, 'marked', 'mark', owner from of
      union all select source_id, 'marked', 'gloss', owner from of where glossed)
    select distinct source_id, coalesce(type || ' ' || owner, type), key from said
      where owner is null or not exists (select 1 from said o
        where o.source_id = said.source_id and o.type = said.type and o.key = said.key and o.owner is null)) marked`,
};
