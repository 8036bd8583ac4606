import { and, eq, inArray, sql } from 'drizzle-orm';
import { within } from '../database/within.ts';
import type { Facets } from '../indexing/facet.ts';
import { entries } from '../lists/tables.ts';
import { countedSense } from './store.ts';

/** In which senses something is marked in a source. */
export const markFacets: Facets = {
  kinds: [
    {
      type: 'sense',
      offered: { name: 'Marked as', most: 20 },
      many: true,
      own: 'some',
      async names(db, workspaceId, keys) {
        const found = await within(db, workspaceId).all(
          entries,
          { id: entries.id, name: sql<string>`${entries.value}->>'name'` },
          and(eq(entries.list, 'sense'), inArray(entries.id, keys)),
        );
        return new Map(found.map((f) => [f.id, f.name]));
      },
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
