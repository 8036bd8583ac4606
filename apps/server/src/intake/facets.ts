import { inArray, sql } from 'drizzle-orm';
import { LACKS } from '@pandecta/core/intake';
import { within } from '../database/within.ts';
import { imports } from '../gathering/tables.ts';
import { fixedNames, type Facets } from '../indexing/facet.ts';

/** With which gathering a source came; and of what waits in the intake, what its citation would miss. */
export const intakeFacets: Facets = {
  kinds: [
    {
      type: 'lacks',
      offered: { name: 'Missing', most: 20 },
      many: true,
      names: fixedNames({ nothing: 'nothing: complete', ...LACKS }),
    },
    {
      type: 'batch',
      offered: { name: 'Came with', most: 30 },
      async names(db, workspaceId, keys) {
        const columns = { id: imports.id, title: imports.title };
        const found = await within(db, workspaceId).all(imports, columns, inArray(imports.id, keys));
        return new Map(found.map((f) => [f.id, f.title]));
      },
    },
  ],
  pairs: ({ workspace }) => sql`
    select c.id, 'lacks', l from chosen c join source_sort ss on ss.workspace_id = ${workspace} and ss.source_id = c.id,
      unnest(case when cardinality(ss.lacks) = 0 then array['nothing'] else ss.lacks end) l where c.presence = 'intake'
    union all select c.id, 'batch', s.import_id::text from chosen c
      join sources s on s.workspace_id = ${workspace} and s.id = c.id where s.import_id is not null`,
};
