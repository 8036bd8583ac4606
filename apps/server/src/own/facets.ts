import { sql } from 'drizzle-orm';
import { fixedNames, type Facets } from '../indexing/facet.ts';

export const ownFacets: Facets = {
  kinds: [
    { type: 'star', offered: { name: 'Yours', most: 1 }, own: true, names: fixedNames({ yes: 'Starred' }) },
    {
      type: 'reading',
      offered: { name: 'Reading', most: 3 },
      levels: { sort: 'reading', keys: ['reading', 'to read', 'read'] },
      own: true,
      names: fixedNames({ 'to read': 'To read', reading: 'Reading', read: 'Read' }),
    },
  ],
  pairs: ({ workspace, ids }) => sql`select source_id, 'star ' || user_id, 'yes' from source_stars
      where workspace_id = ${workspace} and source_id = any(${ids})
    union all select source_id, 'reading ' || user_id, state from source_reading
      where workspace_id = ${workspace} and source_id = any(${ids})`,
};
