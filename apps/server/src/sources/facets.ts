import { sql } from 'drizzle-orm';
import { ALL_KINDS, KINDS } from '@pandecta/core/source';
import { formatDate } from '@pandecta/core/wording';
import type { Db } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { fixedNames, type FacetKind, type Facets } from '../indexing/facet.ts';

/** "2027-03" is March 2027. */
const monthNames: FacetKind['names'] = async (_, __, keys) =>
  new Map(keys.map((key) => [key, formatDate(`${key}-02T12:00:00Z`, 'month')]));

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

/** Where sources were published, by whom, in which language and before which court. */
export const publishedFacets: Facets = {
  kinds: [
    { type: 'container', offered: { name: 'Published in', most: 40 } },
    { type: 'publisher', offered: { name: 'Publisher', most: 40 } },
    { type: 'court', offered: { name: 'Court or authority', most: 40 } },
    { type: 'jurisdiction', offered: { name: 'Jurisdiction', most: 40 } },
    { type: 'language', offered: { name: 'Language', most: 40 }, names: languageNames },
    { type: 'has' },
  ],
  pairs: ({ workspace, ids }) => sql`
    select ss.source_id, split_part(t, '=', 1), substr(t, strpos(t, '=') + 1) from source_sort ss, unnest(ss.told) t
      where ss.workspace_id = ${workspace} and ss.source_id = any(${ids})`,
};

/** "de" is German, by what Unicode's CLDR calls it. */
async function languageNames(_: Db, __: string, keys: string[]): Promise<Map<string, string>> {
  const names = new Intl.DisplayNames(['en'], { type: 'language', fallback: 'code' });
  const nameOf = (key: string): string => {
    try {
      return names.of(key) ?? key;
    } catch {
      return key;
    }
  };
  return new Map(keys.map((key) => [key, nameOf(key)]));
}

/** Who brought a source in, and with which gathering. */
export const comingFacets: Facets = {
  kinds: [
    {
      type: 'by',
      offered: { name: 'Added by', most: 40 },
      async names(db, workspaceId, keys) {
        const found = await rows(
          db,
          { id: text(), name: text() },
          sql`select u.id, u.name from users u where u.id = any(${array(keys, 'uuid')})
            and exists (select 1 from facets f where f.workspace_id = ${workspaceId} and f.type = 'by' and f.key = u.id::text)`,
        );
        return new Map(found.map((f) => [f.id, f.name]));
      },
    },
  ],
  pairs: ({ workspace, ids }) => sql`select s.id, 'by', s.added_by::text from sources s
    where s.workspace_id = ${workspace} and s.id = any(${ids})`,
};
