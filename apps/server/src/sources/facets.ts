import { sql } from 'drizzle-orm';
import { ALL_KINDS, KINDS } from '@pandecta/core/source';
import { fixedNames, type FacetKind, type Facets } from '../indexing/facet.ts';

/** "2027-03" is March 2027. */
const monthNames: FacetKind['names'] = async (_, __, keys) =>
  new Map(
    keys.map((key) => [
      key,
      new Date(`${key}-01T12:00:00Z`).toLocaleDateString('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' }),
    ]),
  );

export const sourceFacets: Facets = {
  kinds: [
    {
      type: 'kind',
      offered: { name: 'Kind', most: 45 },
      names: fixedNames(Object.fromEntries(ALL_KINDS.map((k) => [k, KINDS[k].name]))),
    },
    { type: 'until', offered: { name: 'Access until', most: 24 }, names: monthNames },
    { type: 'presence' },
  ],
  pairs: ({
    workspace,
    ids,
  }) => sql`select id, 'kind', kind from chosen union all select id, 'presence', presence from chosen
    union all select s.id, 'until', lpad(p->>0, 4, '0') || '-' || lpad(coalesce(p->>1, '12'), 2, '0')
    from sources s, lateral (select s.record->'access-until'->'date-parts'->-1) x(p)
    where s.workspace_id = ${workspace} and s.id = any(${ids}) and p->>0 is not null`,
};

export const peopleFacets: Facets = {
  kinds: [{ type: 'person', offered: { name: 'Person', most: 40 }, many: true }],
  pairs: ({ workspace, ids }) => sql`select ss.source_id, 'person', p from source_sort ss, unnest(ss.people) p
    where ss.workspace_id = ${workspace} and ss.source_id = any(${ids})`,
};
