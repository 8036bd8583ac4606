/** Mends at the start what an earlier version, or a restored part of a backup, may have left: collections that stand in a circle. */
import { eq, sql } from 'drizzle-orm';
import { transact, type Db } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { within } from '../database/within.ts';
import { derive } from '../indexing/derive.ts';
import { deriveAncestors, holdTree } from './tree.ts';
import { placeFacets } from './facets.ts';
import { placements } from './tables.ts';

/**
 * Of each circle, which no one can reach from the top, one collection goes to the top with all that stands below it.
 * @returns how many collections were moved
 */
export async function healTrees(db: Db): Promise<number> {
  const broken = await rows(
    db,
    { workspaceId: text() },
    sql`select distinct workspace_id as "workspaceId" from (${CIRCLES}) c`,
  );
  let moved = 0;
  for (const { workspaceId } of broken)
    await transact(db, async (tx) => {
      await holdTree(tx, workspaceId);
      for (;;) {
        const [one] = await rows(
          tx,
          { id: text() },
          sql`select id from (${CIRCLES}) c where workspace_id = ${workspaceId} order by id limit 1`,
        );
        if (!one) break;
        await within(tx, workspaceId).update(placements, { parentId: null }, eq(placements.id, one.id));
        moved += 1;
      }
      await deriveAncestors(tx, workspaceId);
      const filed = await rows(
        tx,
        { id: text() },
        sql`select distinct source_id as id from collection_sources where workspace_id = ${workspaceId}`,
      );
      await derive(tx, workspaceId, { some: [{ of: placeFacets, sources: filed.map((f) => f.id) }] });
    });
  return moved;
}

/** The placements, by their workspace, that lead back to the collection they place. */
const CIRCLES = sql`
  with recursive placed as (
    select p.workspace_id, p.id, p.collection_id, p.parent_id from placements p
    join collections c on c.workspace_id = p.workspace_id and c.id = p.collection_id and c.present
    where p.present and p.parent_id is not null),
  walk (workspace_id, id, start, at) as (
    select workspace_id, id, collection_id, parent_id from placed
    union
    select w.workspace_id, w.id, w.start, p.parent_id from walk w
    join placed p on p.workspace_id = w.workspace_id and p.collection_id = w.at)
  select workspace_id, id from walk where start = at`;
