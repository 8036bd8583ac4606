import { inArray, sql } from 'drizzle-orm';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import type { Facets } from '../indexing/facet.ts';
import { collections } from './tables.ts';

/**
 * In which collections a source stands, those above them included; or in none. Where it stands only by what is a member's
 * own, it does so for that member alone; for all others such a source may be in no collection.
 */
export const placeFacets: Facets = {
  kinds: [
    { type: 'in', offered: { name: 'Collection', most: 60 }, many: true, own: 'some', subject: 'collection', names },
    { type: 'filed', many: true, own: 'some', subject: 'collection', names },
    { type: 'loose', many: true },
  ],
  pairs: ({
    workspace,
    ids,
  }) => sql`select stands.id, case when stands.everyones then stands.type else stands.type || ' ' || whose end, stands.key from (
      select cs.source_id as id, 'in' as type, a.ancestor_id::text as key, bool_or(k.owner is null) as everyones, array_agg(distinct k.owner) as owners
        from collection_sources cs join collection_ancestors a on a.workspace_id = ${workspace} and a.collection_id = cs.collection_id
        join collections k on k.workspace_id = ${workspace} and k.id = cs.collection_id and k.present
        where cs.workspace_id = ${workspace} and cs.source_id = any(${ids}) group by 1, 3
      union all select cs.source_id, 'filed', cs.collection_id::text, k.owner is null, array[k.owner] from collection_sources cs
        join collections k on k.workspace_id = ${workspace} and k.id = cs.collection_id and k.present
        where cs.workspace_id = ${workspace} and cs.source_id = any(${ids})) stands,
      unnest(case when stands.everyones then array[null::uuid] else stands.owners end) whose
    union all select c.id, 'loose', 'yes' from chosen c where not exists (
      select 1 from collection_sources cs join collections k on k.workspace_id = ${workspace} and k.id = cs.collection_id and k.present and k.owner is null
        join collection_ancestors a on a.workspace_id = ${workspace} and a.collection_id = cs.collection_id
      where cs.workspace_id = ${workspace} and cs.source_id = c.id)`,
};

async function names(db: Db, workspaceId: string, keys: string[]): Promise<Map<string, string>> {
  const { id, name } = collections;
  const found = await within(db, workspaceId).all(collections, { id, name }, inArray(id, keys));
  return new Map(found.map((f) => [f.id, f.name]));
}
