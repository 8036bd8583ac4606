/** Carries out what happens to collections: being made, named and placed, and what is filed in them. */
import { sql } from 'drizzle-orm';
import { renamable } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { idsOf, one, rows, type Db } from '../database/connect.ts';
import { array } from '../database/sql.ts';
import { tie } from '../database/tie.ts';
import { deriveAncestors, holdTree } from '../indexing/derive.ts';

const FILED = { table: sql`collection_sources`, column: sql`collection_id` };

export const placeChanges: CarriersOf<'file' | 'collection' | 'placement' | 'rename'> = {
  file: {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      const sources = await tie(tx, workspaceId, FILED, change.collection, change);
      return sources.length ? { change: { ...change, sources }, altered: { facets: sources } } : NOTHING;
    },
  },
  collection: {
    may: 'arrange',
    async carryOut(tx, workspaceId, change) {
      const { collection, name, present } = change;
      await holdTree(tx, workspaceId);
      const done = await one(
        tx,
        sql`insert into collections (workspace_id, id, name, present)
          select ${workspaceId}, ${collection}, ${name}, ${present}
          where ${present} or exists (select 1 from collections c where c.workspace_id = ${workspaceId} and c.id = ${collection})
        on conflict (workspace_id, id) do update set present = excluded.present where collections.present <> excluded.present returning 1`,
      );
      return done ? { change, altered: { facets: await replaced(tx, workspaceId, collection) } } : NOTHING;
    },
  },
  placement: {
    may: 'arrange',
    async carryOut(tx, workspaceId, change) {
      const { placement, collection, parent, present } = change;
      await holdTree(tx, workspaceId);
      const done = await one(
        tx,
        sql`insert into placements (workspace_id, id, collection_id, parent_id, present)
          select ${workspaceId}, ${placement}, ${collection}, ${parent}, ${present}
          where ${present} or exists (select 1 from placements p where p.workspace_id = ${workspaceId} and p.id = ${placement})
        on conflict (workspace_id, id) do update set present = excluded.present where placements.present <> excluded.present returning 1`,
      );
      return done ? { change, altered: { facets: await replaced(tx, workspaceId, collection) } } : NOTHING;
    },
  },
  rename: {
    may: 'arrange',
    async carryOut(tx, workspaceId, change) {
      const found = await one<{ name: string }>(
        tx,
        sql`select name from collections where workspace_id = ${workspaceId} and id = ${change.collection} and present for update`,
      );
      if (!found || !renamable(found.name, change)) return NOTHING;
      await tx.execute(
        sql`update collections set name = ${change.name.after ?? ''} where workspace_id = ${workspaceId} and id = ${change.collection}`,
      );
      return { change, altered: {} };
    },
  },
};

/** After the tree changed: the sources of the collection and of all that stood or now stands below it. */
async function replaced(tx: Db, workspaceId: string, collection: string): Promise<string[]> {
  const below = async (): Promise<string[]> =>
    idsOf(
      await rows<{ id: string }>(
        tx,
        sql`select collection_id as id from collection_ancestors where workspace_id = ${workspaceId} and ancestor_id = ${collection}`,
      ),
    );
  const before = await below();
  await deriveAncestors(tx, workspaceId);
  const collections = [...new Set([collection, ...before, ...(await below())])];
  return idsOf(
    await rows<{ id: string }>(
      tx,
      sql`select distinct source_id as id from collection_sources where workspace_id = ${workspaceId} and collection_id = any(${array(collections, 'uuid')})`,
    ),
  );
}
