/** Making, naming, placing and removing collections; filing sources in them. */
import { v7 as uuidv7 } from 'uuid';
import { countSources, sourcesOf, type Change } from '@pandecta/core/changes';
import type { Changed } from '@pandecta/contract';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import type { Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../http/authorise.ts';
import type { Services } from '../services.ts';
import { countOnlyBelow, findCollection, findPlaces, isBelow, otherPlaces, placementsOf } from './store.ts';

export async function makeCollection(
  services: Services,
  actor: Actor,
  name: string,
  parent: string | null,
): Promise<Changed> {
  if (parent) await findCollection(services.db, actor.workspaceId, parent);
  const id = uuidv7();
  const trimmed = name.trim();
  if (!trimmed) throw new Refusal('invalid', 'a collection needs a name');
  const { changeId, says } = await commit(services, actor, {
    do: 'all',
    says: `Made the collection ${trimmed}`,
    changes: [
      { do: 'collection', collection: id, name: trimmed, present: true },
      { do: 'placement', placement: uuidv7(), collection: id, name: trimmed, parent, present: true },
    ],
  });
  return { changeId, says, id };
}

export async function renameCollection(
  services: Services,
  actor: Actor,
  id: string,
  name: string,
  seen?: string,
): Promise<Changed> {
  const found = await findCollection(services.db, actor.workspaceId, id);
  if (!name.trim()) throw new Refusal('invalid', 'a collection needs a name');
  if (found.name === name.trim()) return { changeId: null, says: 'It has this name already' };
  const { changeId, says } = await commit(services, actor, {
    do: 'rename',
    collection: id,
    name: { before: seen ?? found.name, after: name.trim() },
  });
  return { changeId, says };
}

/** Gives a collection a further placement, or moves one. */
export async function placeCollection(
  services: Services,
  actor: Actor,
  input: { collection: string; parent: string | null; movedFrom?: string },
): Promise<Changed> {
  const { db } = services;
  const moved = await findCollection(db, actor.workspaceId, input.collection);
  const parent = input.parent ? await findCollection(db, actor.workspaceId, input.parent) : undefined;
  if (parent && (parent.id === moved.id || (await isBelow(db, actor.workspaceId, parent.id, moved.id))))
    throw new Refusal('circular');
  const placed = await placementsOf(db, actor.workspaceId, moved.id);
  if (placed.some((p) => p.parent === (parent?.id ?? null)))
    return { changeId: null, says: `${moved.name} already stands there` };
  const from = placed.find((p) => p.id === input.movedFrom);
  const where = parent ? `under ${parent.name}` : 'at the top';
  const changes: Change[] = [
    {
      do: 'placement',
      placement: uuidv7(),
      collection: moved.id,
      name: moved.name,
      parent: parent?.id ?? null,
      present: true,
    },
  ];
  if (from)
    changes.push({
      do: 'placement',
      placement: from.id,
      collection: moved.id,
      name: moved.name,
      parent: from.parent,
      present: false,
    });
  const { changeId, says } = await commit(services, actor, {
    do: 'all',
    says: from ? `Moved ${moved.name} ${where}` : `Placed ${moved.name} ${where} as well`,
    changes,
  });
  return { changeId, says };
}

/** Removes one placement; with its last one the collection goes. Its sources are never touched. */
export async function removePlacement(services: Services, actor: Actor, placement: string): Promise<Changed> {
  const places = await findPlaces(services, actor.workspaceId);
  const found = places.placements.find((p) => p.id === placement);
  const collection = places.collections.find((c) => c.id === found?.collection);
  if (!found || !collection) throw new Refusal('no_such_collection');
  const others = places.placements.filter((p) => p.collection === collection.id).length - 1;
  const change: Change = {
    do: 'placement',
    placement,
    collection: collection.id,
    name: collection.name,
    parent: found.parent,
    present: false,
  };
  const sources = `its ${countSources(collection.count)} stay in the workspace`;
  const says =
    others > 0
      ? `Removed ${collection.name} from here; it still stands in ${others} other ${others === 1 ? 'place' : 'places'}`
      : `Removed the collection ${collection.name}${await belowWords(services.db, actor, collection.id)}; ${collection.count ? sources : 'it held no sources'}`;
  const changes: Change[] =
    others > 0
      ? [change]
      : [change, { do: 'collection', collection: collection.id, name: collection.name, present: false }];
  const { changeId } = await commit(services, actor, { do: 'all', says, changes });
  return { changeId, says };
}

/** " and the one below it", " and the 3 below it", or nothing. */
async function belowWords(db: Db, actor: Actor, collection: string): Promise<string> {
  const n = await countOnlyBelow(db, actor.workspaceId, collection);
  return n ? ` and the ${n === 1 ? 'one' : n} below it` : '';
}

export async function fileSources(
  services: Services,
  actor: Actor,
  ids: string[],
  collectionId: string,
  present: boolean,
): Promise<Changed> {
  const collection = await findCollection(services.db, actor.workspaceId, collectionId);
  const { id, name } = collection;
  const committed = await commit(services, actor, { do: 'file', collection: id, name, sources: ids, present });
  const answered = answer(committed);
  if (committed.jobId) return answered;
  if (!committed.changeId)
    return {
      ...answered,
      says: present ? `Already in ${name}` : `Not in ${name} itself; it may stand in a collection below`,
    };
  if (present) return answered;
  const others = await otherPlaces(services.db, actor.workspaceId, sourcesOf(committed.change), id);
  return { ...answered, says: `${committed.says}; ${stays(others)}` };
}

/** What stays after sources were taken from a collection. */
function stays(others: number[]): string {
  const [n] = others;
  if (others.length === 1)
    return n ? `still in ${n} other ${n === 1 ? 'place' : 'places'}` : 'the source stays, in no collection';
  const loose = others.filter((o) => o === 0).length;
  return loose ? `the sources stay, ${loose} of them in no collection` : 'the sources stay in their other places';
}
