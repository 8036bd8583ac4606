import { sql } from 'drizzle-orm';
import { ALL_KINDS, KINDS } from '@pandecta/core/source';
import { fixedNames, type Facets } from '../indexing/facet.ts';

export const sourceFacets: Facets = {
  kinds: [
    {
      type: 'kind',
      offered: { name: 'Kind', most: 45 },
      names: fixedNames(Object.fromEntries(ALL_KINDS.map((k) => [k, KINDS[k].name]))),
    },
    { type: 'presence' },
  ],
  pairs: () => sql`select id, 'kind', kind from chosen union all select id, 'presence', presence from chosen`,
};

export const peopleFacets: Facets = {
  kinds: [{ type: 'person', offered: { name: 'Person', most: 40 }, many: true }],
  pairs: ({ workspace, ids }) => sql`select ss.source_id, 'person', p from source_sort ss, unnest(ss.people) p
    where ss.workspace_id = ${workspace} and ss.source_id = any(${ids})`,
};
