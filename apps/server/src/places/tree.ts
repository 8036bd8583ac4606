/** Which collection stands under which, derived from the placements. */
import { sql } from 'drizzle-orm';
import type { Db } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { collectionAncestors } from './tables.ts';

/** Before collections are placed anew: one after another, and seen by all who write meanwhile. */
export async function holdTree(tx: Db, workspaceId: string): Promise<void> {
  await tx.execute(sql`update workspaces set tree = tree + 1 where id = ${workspaceId}`);
}

/**
 * Rebuilds which collection stands under which, from the placements that can be reached from the top: of one collection and
 * all that stood or stands below it, or of all. What stands in several places is gone through once, however many ways lead
 * to it.
 *
 * @param of the collection that was made, removed or placed anew
 */
export async function deriveAncestors(tx: Db, workspaceId: string, of?: string): Promise<void> {
  const w = sql`${workspaceId}::uuid`;
  const placed = sql`placed as (
    select p.collection_id, p.parent_id from placements p
    join collections c on c.workspace_id = p.workspace_id and c.id = p.collection_id and c.present
    where p.workspace_id = ${w} and p.present)`;
  let those = sql`select distinct collection_id as id from placed`;
  if (of) {
    const begin = sql`select collection_id from collection_ancestors where workspace_id = ${w} and ancestor_id = ${of} union select ${of}::uuid`;
    const found = await rows(
      tx,
      { id: text() },
      sql`with recursive ${placed}, below (id) as (
        select b.collection_id from (${begin}) b
        union select placed.collection_id from placed join below on placed.parent_id = below.id) select id from below`,
    );
    those = sql`select unnest(${array(
      found.map((f) => f.id),
      'uuid',
    )}) as id`;
  }
  const gone = of && sql`${collectionAncestors.collectionId} in (${those})`;
  await within(tx, workspaceId).delete(collectionAncestors, gone || undefined);
  await tx.execute(sql`
    with recursive ${placed},
    those as (${those}),
    above (id) as (select id from those union select placed.parent_id from placed join above on placed.collection_id = above.id where placed.parent_id is not null),
    reached (id) as (
      select placed.collection_id from placed join above on above.id = placed.collection_id where placed.parent_id is null
      union select placed.collection_id from placed join reached on placed.parent_id = reached.id join above on above.id = placed.collection_id),
    pairs (id, ancestor) as (
      select those.id, those.id from those join reached on reached.id = those.id
      union select pairs.id, placed.parent_id from pairs join placed on placed.collection_id = pairs.ancestor
        join reached on reached.id = placed.parent_id)
    insert into collection_ancestors (workspace_id, collection_id, ancestor_id) select ${w}, id, ancestor from pairs`);
}
