import { sql } from 'drizzle-orm';
import { fixedNames, type Facets } from '../indexing/facet.ts';
import { namesOfEntries } from '../lists/store.ts';

/** Labels that are of the workspace no more are borne by no source; put back, by those that bore them. */
export const stateFacets: Facets = {
  kinds: [
    {
      type: 'label',
      offered: { name: 'Label', most: 40 },
      many: true,
      subject: 'label',
      names: namesOfEntries('label'),
    },
    {
      type: 'rating',
      offered: { name: 'Rating', most: 6 },
      levels: { sort: 'rating', keys: ['5', '4', '3', '2', '1'] },
      names: fixedNames(Object.fromEntries(['1', '2', '3', '4', '5'].map((n) => [n, `${n} of 5`]))),
    },
    { type: 'again', offered: { name: 'Check again', most: 1 }, names: fixedNames({ yes: 'To be checked again' }) },
  ],
  pairs: ({ workspace, ids }) => sql`select sl.source_id, 'label', sl.label_id::text from source_labels sl
      join entries e on e.workspace_id = ${workspace} and e.list = 'label' and e.id = sl.label_id
      where sl.workspace_id = ${workspace} and sl.source_id = any(${ids})
    union all select source_id, 'again', 'yes' from source_rechecks
      where workspace_id = ${workspace} and source_id = any(${ids})
    union all select source_id, 'rating', rating::text from source_ratings
      where workspace_id = ${workspace} and source_id = any(${ids})`,
};
