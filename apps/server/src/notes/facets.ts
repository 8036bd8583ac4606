import { sql } from 'drizzle-orm';
import { countedHeadings } from '../headings/store.ts';
import { partsOfEach } from '../database/merged.ts';
import type { Facets } from '../indexing/facet.ts';
import { namesOfEntries } from '../lists/store.ts';

/** What the notes on a source are about. */
export const noteFacets: Facets = {
  kinds: [
    {
      type: 'about',
      offered: { name: 'Notes about', most: 20 },
      many: true,
      own: 'some',
      names: namesOfEntries('heading'),
    },
    { type: 'noted', own: 'some' },
  ],
  pairs: ({ workspace, ids }) => sql`select * from (
    ${partsOfEach(workspace, ids)},
    h as (${countedHeadings(workspace)}),
    of as (select p.whole, n.owner, n.about from parts p
      join note_sources t on t.workspace_id = ${workspace} and t.source_id = p.id
      join notes n on n.workspace_id = t.workspace_id and n.id = t.note_id and n.present),
    said (source_id, type, key, owner) as (select o.whole, 'about', h.counts::text, o.owner from of o, unnest(o.about) a join h on h.id = a
      union all select whole, 'noted', 'yes', owner from of)
    select distinct source_id, coalesce(type || ' ' || owner, type), key from said
      where owner is null or not exists (select 1 from said o
        where o.source_id = said.source_id and o.type = said.type and o.key = said.key and o.owner is null)) noted`,
};
