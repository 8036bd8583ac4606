/** Carries out what happens to collections: being made, named and placed, and what is filed in them. */
import { and, eq, inArray, sql, type SQL } from 'drizzle-orm';
import { editableCollection, standing } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { refuseCircle } from '../database/circle.ts';
import { idsOf, type Db } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { array, table } from '../database/sql.ts';
import { tie } from '../database/tie.ts';
import { within, type Row } from '../database/within.ts';
import { deriveAncestors, holdTree } from './tree.ts';
import { placeFacets } from './facets.ts';
import { collectionAncestors, collections, placements } from './tables.ts';

const FILED = { table: sql`collection_sources`, column: sql`collection_id` };

export const placeChanges: CarriersOf<'file' | 'collection' | 'placement' | 'collection-edit' | 'order'> = {
  file: {
    may: (change) => (change.own ? 'own' : 'edit'),
    async carryOut(tx, workspaceId, change) {
      const sources = await tie(tx, workspaceId, FILED, change.collection, change);
      return sources.length
        ? { change: { ...change, sources }, altered: { some: [{ of: placeFacets, sources }] } }
        : NOTHING;
    },
  },
  collection: {
    may: (change) => (change.own ? 'own' : 'arrange'),
    async carryOut(tx, workspaceId, change) {
      const { collection, name, present, own } = change;
      await holdTree(tx, workspaceId);
      const row = { id: collection, name, owner: own ?? null };
      const done = await appear(tx, workspaceId, collections, row, present);
      return done
        ? { change, altered: { some: [{ of: placeFacets, sources: await replaced(tx, workspaceId, collection) }] } }
        : NOTHING;
    },
  },
  placement: {
    may: (change) => (change.own ? 'own' : 'arrange'),
    async carryOut(tx, workspaceId, change) {
      const { placement, collection, parent, present } = change;
      await holdTree(tx, workspaceId);
      if (present && parent)
        await refuseCircle(tx, workspaceId, 'placements', placedIn(workspaceId), collection, parent);
      const row = { id: placement, collectionId: collection, parentId: parent };
      const done = await appear(tx, workspaceId, placements, row, present);
      return done
        ? { change, altered: { some: [{ of: placeFacets, sources: await replaced(tx, workspaceId, collection) }] } }
        : NOTHING;
    },
  },
  'collection-edit': {
    may: (change) => (change.own ? 'own' : 'arrange'),
    async carryOut(tx, workspaceId, change) {
      const here = within(tx, workspaceId);
      const { id, name, says, until, rule, allows, owner, present } = collections;
      const one = eq(id, change.collection);
      const words = { name, says, until, rule, allows, owner };
      const found = await here.first(collections, words, and(one, present), { lock: 'update' });
      const done = found ? editableCollection(found, change) : null;
      if (!done) return NOTHING;
      const after = Object.fromEntries(Object.entries(done.fields).map(([field, value]) => [field, value.after]));
      await here.update(collections, after, one);
      // The owner decides who sees these sources, in it and in the collections above.
      const sources = done.fields.owner ? await filedThere(tx, workspaceId, [change.collection]) : [];
      return { change: done, altered: sources.length ? { some: [{ of: placeFacets, sources }] } : {} };
    },
  },
  order: {
    may: (change) => (change.own ? 'own' : 'arrange'),
    async carryOut(tx, workspaceId, change) {
      const here = within(tx, workspaceId);
      const { id, rank, present } = placements;
      const those = and(inArray(id, Object.keys(change.ranks)), present);
      const found = await here.all(placements, { id, rank }, those, {
        by: [id],
        lock: 'update',
      });
      const now = new Map(found.map((f) => [f.id, f.rank]));
      const ranks = standing(change.ranks, (one) => now.get(one));
      if (!ranks) return NOTHING;
      const written = table('u', {
        id: ['uuid', Object.keys(ranks)],
        rank: ['float8', Object.values(ranks).map(({ after }) => after)],
      });
      await tx.execute(
        sql`update placements p set rank = u.rank from ${written} where p.workspace_id = ${workspaceId} and p.id = u.id`,
      );
      return { change: { ...change, ranks }, altered: {} };
    },
  },
};

/** Which collection stands under which, whether it can be reached or not. */
const placedIn = (workspaceId: string): SQL =>
  sql`select collection_id, parent_id from placements where workspace_id = ${workspaceId} and present`;

/**
 * Makes what is not there yet, and has what is there appear or go. Who holds the tree does it alone.
 * @returns whether that was not so already
 */
async function appear<T extends typeof collections | typeof placements>(
  tx: Db,
  workspaceId: string,
  table: T,
  row: Row<T> & { id: string },
  present: boolean,
): Promise<boolean> {
  const here = within(tx, workspaceId);
  const one = eq(table.id, row.id);
  const known = await here.first(table, { present: sql<boolean>`${table.present}` }, one);
  if (known ? known.present === present : !present) return false;
  if (known) await here.update(table as typeof collections, { present }, one);
  else await here.insert(table, { ...row, present });
  return true;
}

/** After the tree changed: the sources of the collection and of all that stood or now stands below it. */
async function replaced(tx: Db, workspaceId: string, collection: string): Promise<string[]> {
  const { collectionId, ancestorId } = collectionAncestors;
  const below = async (): Promise<string[]> =>
    idsOf(await within(tx, workspaceId).all(collectionAncestors, { id: collectionId }, eq(ancestorId, collection)));
  const before = await below();
  await deriveAncestors(tx, workspaceId, collection);
  return filedThere(tx, workspaceId, [...new Set([collection, ...before, ...(await below())])]);
}

const filedThere = async (tx: Db, workspaceId: string, collections: string[]): Promise<string[]> =>
  idsOf(
    await rows(
      tx,
      { id: text() },
      sql`select distinct source_id as id from collection_sources where workspace_id = ${workspaceId} and collection_id = any(${array(collections, 'uuid')})`,
    ),
  );
