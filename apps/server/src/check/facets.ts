/** What proofing finds in a record looked at by itself, but for what was set aside. */
import { sql, type SQL } from 'drizzle-orm';
import { RULES } from '@pandecta/core/proofing';
import { fixedNames, type Facets } from '../indexing/facet.ts';

/** Stands for a record in which nothing is found. */
export const SOUND = 'nothing';

/** The rules that find something in the source of the row `ss` of source_sort, and are not set aside. */
export const openRules = (workspace: SQL): SQL =>
  sql`array(select f from unnest(ss.findings) f where not exists (select 1 from settled a
    where a.workspace_id = ${workspace} and a.what = 'aside' and a.name = f and (a.source_id is null or a.source_id = ss.source_id)))`;

export const findingFacets: Facets = {
  kinds: [
    {
      type: 'finding',
      offered: { name: 'Finding', most: 30 },
      many: true,
      names: fixedNames({ [SOUND]: 'nothing in the record', ...Object.fromEntries(RULES.map((r) => [r.id, r.title])) }),
    },
  ],
  pairs: ({ workspace, ids }) => sql`
    select x.source_id, 'finding', unnest(case when cardinality(x.found) = 0 then array[${SOUND}] else x.found end) from (
      select ss.source_id, ${openRules(workspace)} as found
      from source_sort ss where ss.workspace_id = ${workspace} and ss.source_id = any(${ids}) and ss.findings is not null) x`,
};
