/** Making, describing, placing and removing collections. */
import { v7 as uuidv7 } from 'uuid';
import {
  countSources,
  isEmpty,
  type Change,
  type CollectionEditChange,
  type OrderChange,
} from '@pandecta/core/changes';
import type { Ask, Changed, EditCollection, PlaceCollection } from '@pandecta/contract';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import type { Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';
import type { Acting, Actor } from '../access/principal.ts';
import { said as asked } from '../searching/asked.ts';
import { pairOf } from '../searching/facets.ts';
import { understand } from '../searching/match.ts';
import type { Services } from '../services.ts';
import { namedFor, ordered, placed, said, there, type Named } from './placed.ts';
import {
  besides,
  countOnlyBelow,
  findCollection,
  findPlaces,
  isBelow,
  placementsOf,
  presentCollections,
  presentPlacements,
  type Beside,
} from './store.ts';

/** @param mine seen by its maker alone; what stands under such a collection is so too */
export async function makeCollection(
  services: Services,
  actor: Actor,
  name: string,
  parent: string | null,
  mine = false,
): Promise<Changed> {
  const above = parent ? await findCollection(services.db, actor, parent) : undefined;
  const owner = mine || above?.owner ? actor.userId : null;
  const id = uuidv7();
  const trimmed = name.trim();
  if (!trimmed) throw new Refusal('invalid', 'a collection needs a name');
  const { changeId, says } = await commit(services, actor, {
    do: 'all',
    says: `Made the collection ${trimmed}`,
    changes: [there({ id, name: trimmed, owner }, true), placed({ id, name: trimmed, owner }, parent)],
  });
  return { changeId, says, id };
}

/** @throws Refusal where a rule asks for the collection itself */
export async function editCollection(
  services: Services,
  caller: Acting,
  id: string,
  { name, seen, says, until, rule, allows, mine }: EditCollection,
): Promise<Changed> {
  const found = await findCollection(services.db, caller.actor, id);
  if (name !== undefined && !name.trim()) throw new Refusal('invalid', 'a collection needs a name');
  if (rule) await refuseOfItself(services, caller, id, rule);
  const owner = mine === undefined ? found.owner : mine ? (found.owner ?? caller.actor.userId) : null;
  if (owner !== found.owner) await refuseToTurn(services, caller.actor, found, owner);
  const fields: CollectionEditChange['fields'] = {
    ...(name !== undefined && { name: { before: seen ?? found.name, after: name.trim() } }),
    ...(says !== undefined && { says: { before: found.says, after: says.trim() || null } }),
    ...(until !== undefined && { until: { before: found.until, after: until && { ...until } } }),
    ...(rule !== undefined && { rule: { before: found.rule, after: rule && { ...asked(rule) } } }),
    ...(allows !== undefined && { allows: { before: found.allows, after: allows?.trim() || null } }),
    ...(owner !== found.owner && { owner: { before: found.owner, after: owner } }),
  };
  const change = said(found, fields);
  if (isEmpty(change)) return { changeId: null, says: 'Nothing changed' };
  return answer(await commit(services, caller.actor, change, { joins: true }));
}

/**
 * What is everyone's stands under nothing that is a member's own: nobody else would reach it.
 * @throws Refusal where that would be so
 */
async function refuseToTurn(services: Services, actor: Actor, found: Named, owner: string | null): Promise<void> {
  const [placements, known] = await Promise.all([
    presentPlacements(services.db, actor),
    presentCollections(services.db, actor),
  ]);
  const isMine = (id: string | null): boolean => Boolean(id && known.find((c) => c.id === id)?.mine);
  const places = placements.filter((p) => p.collection === found.id);
  const below = placements.filter((p) => p.parent === found.id);
  if (owner && below.some((p) => !isMine(p.collection)))
    throw new Refusal('invalid', `collections that all members see stand under ${found.name}: move them first`);
  if (!owner && places.some((p) => isMine(p.parent)))
    throw new Refusal('invalid', `${found.name} stands under a collection you alone see: move it first`);
}

/** A rule is a question that may ask for other collections, but not for what it is the rule of. */
async function refuseOfItself(services: Services, caller: Acting, id: string, rule: Ask): Promise<void> {
  const { notes } = await understand(services.db, caller, rule);
  if (notes[0]) throw new Refusal('invalid', `the rule cannot be read: ${notes[0].says}`);
  const asked = [rule.collection, ...(rule.include ?? []).map((f) => pairOf(f)[1])];
  if (asked.includes(id)) throw new Refusal('invalid', 'a rule cannot ask for the collection it belongs to');
}

/** Gives a collection a further placement, or moves one; by hand to a place among those beside it. */
export async function placeCollection(
  services: Services,
  actor: Actor,
  { collection, parent: into, movedFrom, before }: PlaceCollection,
): Promise<Changed> {
  const { db } = services;
  const moved = await findCollection(db, actor, collection);
  const parent = into ? await findCollection(db, actor, into) : undefined;
  if (parent && (parent.id === moved.id || (await isBelow(db, actor.workspaceId, parent.id, moved.id))))
    throw new Refusal('circular');
  if (parent?.owner && !moved.owner)
    throw new Refusal('invalid', `${moved.name} is seen by all members, and ${parent.name} by you alone`);
  const has = await placementsOf(db, actor.workspaceId, moved.id);
  const stands = has.find((p) => p.parent === (parent?.id ?? null));
  if (stands && before === undefined) return { changeId: null, says: `${moved.name} already stands there` };
  const from = has.find((p) => p.id === movedFrom);
  const fresh = stands ? undefined : placed(moved, parent?.id ?? null);
  const placement = fresh?.placement ?? stands!.id;
  const changes: Change[] = fresh ? [fresh] : [];
  if (from && from.id !== placement) changes.push(placed(moved, from.parent, from.id));
  // One's own stands among those of all by its name: their order is not one's own.
  if (before !== undefined && (!moved.owner || parent?.owner)) {
    const beside = await besides(db, actor, parent?.id ?? null);
    const mine = beside.find((p) => p.id === placement) ?? { id: placement, collection: moved.id, rank: null };
    const others = beside.filter((p) => p !== mine);
    const at = before === null ? -1 : others.findIndex((p) => p.id === before);
    others.splice(at < 0 ? others.length : at, 0, mine);
    changes.push(ordered(moved, ranked(others)));
  }
  const where = parent ? `under ${parent.name}` : 'at the top';
  const says = stands
    ? `Put ${moved.name} in another place ${where}`
    : from
      ? `Moved ${moved.name} ${where}`
      : `Placed ${moved.name} ${where} as well`;
  return answer(await commit(services, actor, { do: 'all', says, changes }));
}

/** One after another, as they are given. */
const ranked = (placements: Beside[]): OrderChange['ranks'] =>
  Object.fromEntries(placements.map(({ id, rank }, i) => [id, { before: rank, after: i + 1 }]));

/** Those below a collection, or at the top, stand by their names again. */
export async function orderByName(services: Services, actor: Actor, parent: string | null): Promise<Changed> {
  const beside = (await besides(services.db, actor, parent)).filter((p) => p.rank !== null);
  const [first] = beside;
  if (!first) return { changeId: null, says: 'Already sorted by name' };
  const ranks = Object.fromEntries(beside.map(({ id, rank }) => [id, { before: rank, after: null }]));
  const above = parent ? await findCollection(services.db, actor, parent) : { id: first.collection, name: '' };
  return answer(await commit(services, actor, ordered(above, ranks)));
}

/** Removes one placement; with its last one the collection goes. Its sources are never touched. */
export async function removePlacement(services: Services, actor: Actor, placement: string): Promise<Changed> {
  const places = await findPlaces(services, actor);
  const found = places.placements.find((p) => p.id === placement);
  const collection = places.collections.find((c) => c.id === found?.collection);
  if (!found || !collection) throw new Refusal('no_such_collection');
  const others = places.placements.filter((p) => p.collection === collection.id).length - 1;
  const whose = namedFor(actor.userId, collection);
  const change = placed(whose, found.parent, placement);
  const sources = `its ${countSources(collection.count)} stay in the workspace`;
  const says =
    others > 0
      ? `Removed ${collection.name} from here; it still stands in ${others} other ${others === 1 ? 'place' : 'places'}`
      : `Removed the collection ${collection.name}${await belowWords(services.db, actor, collection.id)}; ${collection.count ? sources : 'it held no sources'}`;
  const changes: Change[] = others > 0 ? [change] : [change, there(whose, false)];
  const { changeId } = await commit(services, actor, { do: 'all', says, changes });
  return { changeId, says };
}

/** " and the one below it", " and the 3 below it", or nothing. */
async function belowWords(db: Db, actor: Actor, collection: string): Promise<string> {
  const n = await countOnlyBelow(db, actor, collection);
  return n ? ` and the ${n === 1 ? 'one' : n} below it` : '';
}
