/** Collections, where they stand, and how many sources they hold. */
import { and, eq, inArray, sql, type SQL } from 'drizzle-orm';
import type { Ask, CollectionNode, Placement, PlacesReply } from '@pandecta/contract';
import type { CollectionWords } from '@pandecta/core/changes';
import { idsOf, type Db } from '../database/connect.ts';
import { json, number, one, orNull, rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { within } from '../database/within.ts';
import type { Actor, Viewer } from '../access/principal.ts';
import { keptUnder } from '../indexing/facet.ts';
import { facetKind } from '../indexing/facet.ts';
import { facets } from '../indexing/tables.ts';
import { Refusal } from '../errors.ts';
import { boundsCondition } from '../searching/facets.ts';
import { visibleTo } from '../subjects/registry.ts';
import type { Asked } from '../columns/service.ts';
import type { Services } from '../services.ts';
import { binDays } from '../records/bin-days.ts';
import { pathsAmong } from './paths.ts';
import { collectionAncestors, collections, placements } from './tables.ts';

type Asking = Pick<Services, 'db' | 'columns'>;

/** Whether the collection `of` is there and may be seen. */
export const seenBy = (viewer: Viewer, of: SQL = sql`c`): SQL => visibleTo(viewer, 'collection', of);

/** More collections than any workspace has. */
const MOST_COLLECTIONS = 20_000;

export async function findPlaces({ db, columns }: Asking, actor: Actor): Promise<PlacesReply> {
  const { workspaceId, userId } = actor;
  const kept = [...keptUnder(facetKind('in')!, userId)];
  const all: Pick<Asked, 'condition' | 'sets'> = { condition: await boundsCondition(db, actor), sets: [] };
  const here = within(db, workspaceId);
  const [present, placed, known, days, live, bin, intake] = await Promise.all([
    presentCollections(db, actor),
    presentPlacements(db, actor),
    here.all(facets, { id: facets.id, type: facets.type, key: facets.key }, inArray(facets.type, [...kept, 'loose'])),
    binDays(db, workspaceId),
    columns.ask(workspaceId, {
      ...all,
      presence: 'live',
      narrow: {
        most: { ...Object.fromEntries(kept.map((type) => [type, MOST_COLLECTIONS])), loose: 1 },
        years: { is: 'none' },
      },
    }),
    columns.ask(workspaceId, { ...all, presence: 'bin' }),
    columns.ask(workspaceId, { ...all, presence: 'intake' }),
  ]);
  const counts = new Map(live.facets.flatMap(([, counts]) => counts));
  // What stands in it for all, and what does so for this member alone: no source is both.
  const byKey = new Map<string, number>();
  for (const f of known) byKey.set(f.key, (byKey.get(f.key) ?? 0) + (counts.get(f.id) ?? 0));
  const count = (key: string): number => byKey.get(key) ?? 0;
  return {
    collections: present.map((c) => ({ ...c, count: count(c.id) })),
    placements: placed,
    loose: count('yes'),
    bin: bin.total,
    binDays: days,
    intake: intake.total,
    total: live.total,
  };
}

/** Those that are there, by their names. */
export async function presentCollections(db: Db, actor: Actor): Promise<Omit<CollectionNode, 'count'>[]> {
  const { id, name, says, until, rule, allows, owner } = collections;
  const seen = seenBy(actor, sql`${collections}`);
  const found = await within(db, actor.workspaceId).all(
    collections,
    { id, name, says, until, rule, allows, owner },
    seen,
    {
      by: [sql`${name} collate "pandecta"`, id],
    },
  );
  return found.map(({ owner: whose, ...c }) => ({
    ...c,
    says: c.says ?? '',
    rule: c.rule as Ask | null,
    mine: whose !== null,
  }));
}

/** Where they stand. */
export const presentPlacements = async (db: Db, actor: Actor): Promise<Placement[]> =>
  withinBounds(
    await rows(
      db,
      { id: text(), collection: text(), parent: orNull(text()), rank: orNull(number) },
      sql`select p.id, p.collection_id as collection, p.parent_id as parent, p.rank from placements p
      join collections c on c.workspace_id = p.workspace_id and c.id = p.collection_id and ${seenBy(actor)}
      where p.workspace_id = ${actor.workspaceId} and p.present`,
    ),
    actor,
  );

/** What a bounded member sees of the placements: their own collection as the top of the tree, and what is below it. */
function withinBounds<P extends { collection: string; parent: string | null }>(placed: P[], { bounds }: Actor): P[] {
  if (!bounds) return placed;
  const seen = new Set(placed.map((p) => p.collection));
  const top = placed.find((p) => p.collection === bounds.collection);
  const below = placed.filter((p) => p.collection !== bounds.collection && p.parent && seen.has(p.parent));
  return top ? [{ ...top, parent: null }, ...below] : [];
}

/** The rules of these collections, and of those below them. */
export async function rulesWithin(
  db: Db,
  actor: Actor,
  ids: string[],
  below: boolean,
): Promise<{ id: string; ask: Ask }[]> {
  const w = sql`${actor.workspaceId}::uuid`;
  const these = array(ids, 'uuid');
  const meant = below
    ? sql`select a.collection_id from collection_ancestors a where a.workspace_id = ${w} and a.ancestor_id = any(${these})`
    : sql`select unnest(${these})`;
  return rows(
    db,
    { id: text(), ask: json<Ask>() },
    sql`select c.id, c.rule as ask from collections c
      where c.workspace_id = ${w} and c.rule is not null and ${seenBy(actor)} and c.id in (${meant}) order by c.id`,
  );
}

/**
 * The paths by which collections are reached: "Licensing › Chapter 2". Of one that is reached by very many the first
 * `MOST_PATHS`.
 * @param of all there are where none are named
 */
export async function pathsOf(db: Db, actor: Actor, of?: readonly string[]): Promise<Map<string, string[]>> {
  if (of && !of.length) return new Map();
  // Of those named, only what they stand below matters.
  const above = of
    ? sql`and p.collection_id in (select unnest(${array([...of], 'uuid')})
        union select a.ancestor_id from collection_ancestors a where a.workspace_id = ${actor.workspaceId} and a.collection_id = any(${array([...of], 'uuid')}))`
    : sql``;
  const placed = await rows(
    db,
    { collection: text(), name: text(), parent: orNull(text()) },
    sql`select p.collection_id as collection, c.name, p.parent_id as parent from placements p
      join collections c on c.workspace_id = p.workspace_id and c.id = p.collection_id and ${seenBy(actor)}
      where p.workspace_id = ${actor.workspaceId} and p.present ${above}`,
  );
  return pathsAmong(
    withinBounds(placed, actor).map(({ collection: id, ...p }) => ({ id, ...p })),
    of,
  );
}

/** @throws Refusal where there is none, or another member's own */
export async function findCollection(db: Db, actor: Actor, id: string): Promise<{ id: string } & CollectionWords> {
  const { name, says, until, rule, allows, owner } = collections;
  const found = await within(db, actor.workspaceId).first(
    collections,
    { id: collections.id, name, says, until, rule, allows, owner },
    and(eq(collections.id, id), seenBy(actor, sql`${collections}`)),
  );
  if (!found) throw new Refusal('no_such_collection');
  return found;
}

/** The sources filed in a collection itself, as far as they are in use. */
export async function filedIn(db: Db, workspaceId: string, collection: string): Promise<string[]> {
  return idsOf(
    await rows(
      db,
      { id: text() },
      sql`select s.id from collection_sources cs join sources s on s.workspace_id = cs.workspace_id and s.id = cs.source_id
        where cs.workspace_id = ${workspaceId} and cs.collection_id = ${collection} and s.presence = 'live' order by s.id`,
    ),
  );
}

/** A placement among others of the same collection, or at the top. */
export interface Beside {
  id: string;
  collection: string;
  rank: number | null;
}

/** Those that stand below a collection, or at the top, in the order they are shown in. */
export function besides(db: Db, actor: Actor, parent: string | null): Promise<Beside[]> {
  const below = parent ? sql`p.parent_id = ${parent}` : sql`p.parent_id is null`;
  return rows(
    db,
    { id: text(), collection: text(), rank: orNull(number) },
    sql`select p.id, p.collection_id as collection, p.rank from placements p
      join collections c on c.workspace_id = p.workspace_id and c.id = p.collection_id and ${seenBy(actor)}
      where p.workspace_id = ${actor.workspaceId} and p.present and ${below}
      order by p.rank nulls last, c.name collate "pandecta", p.id`,
  );
}

/** The collections that have a rule, or under which one stands that has. */
export async function withRules(db: Db, actor: Actor): Promise<string[]> {
  return idsOf(
    await rows(
      db,
      { id: text() },
      sql`select distinct a.ancestor_id as id from collections c
        join collection_ancestors a on a.workspace_id = c.workspace_id and a.collection_id = c.id
        where c.workspace_id = ${actor.workspaceId} and c.rule is not null and ${seenBy(actor)}`,
    ),
  );
}

export function placementsOf(
  db: Db,
  workspaceId: string,
  collection: string,
): Promise<{ id: string; parent: string | null }[]> {
  const { id, parentId, collectionId, present } = placements;
  const where = and(eq(collectionId, collection), present);
  return within(db, workspaceId).all(placements, { id, parent: parentId }, where, { by: [id] });
}

export function isBelow(db: Db, workspaceId: string, collection: string, ancestor: string): Promise<boolean> {
  const { collectionId, ancestorId } = collectionAncestors;
  const where = and(eq(collectionId, collection), eq(ancestorId, ancestor));
  return within(db, workspaceId).has(collectionAncestors, where);
}

/** How many collections stand below this one and nowhere else: they go out of sight with it. */
export async function countOnlyBelow(db: Db, actor: Actor, collection: string): Promise<number> {
  const found = await one(
    db,
    { n: number },
    sql`with recursive placed as (
        select p.collection_id as id, p.parent_id from placements p
        join collections c on c.workspace_id = p.workspace_id and c.id = p.collection_id and c.present
        where p.workspace_id = ${actor.workspaceId} and p.present and p.collection_id <> ${collection}),
      elsewhere as (
        select id from placed where parent_id is null
        union select p.id from placed p join elsewhere e on e.id = p.parent_id)
      select count(distinct a.collection_id)::int as n from collection_ancestors a
      where a.workspace_id = ${actor.workspaceId} and a.ancestor_id = ${collection} and a.collection_id <> ${collection}
        and exists (select 1 from collections c where c.workspace_id = ${actor.workspaceId} and c.id = a.collection_id and ${seenBy(actor)})
        and not exists (select 1 from elsewhere e where e.id = a.collection_id)`,
  );
  return found!.n;
}

/** How many other collections hold each of the sources, at most and at least. */
export async function otherPlaces(db: Db, actor: Actor, sources: string[], collection: string): Promise<number[]> {
  const found = await rows(
    db,
    { n: number },
    sql`
    select (select count(*)::int from collection_sources cs join collections c on c.workspace_id = cs.workspace_id and c.id = cs.collection_id and ${seenBy(actor)}
      where cs.workspace_id = ${actor.workspaceId} and cs.source_id = u.id and cs.collection_id <> ${collection}) as n
    from unnest(${array(sources, 'uuid')}) as u(id)`,
  );
  return found.map((f) => f.n);
}
