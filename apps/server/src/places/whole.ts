/** What is done to a whole collection with what stands below it: copied, made part of another, moved to the bin. */
import { v7 as uuidv7 } from 'uuid';
import { countSources, type Change } from '@pandecta/core/changes';
import type { Changed, Placement } from '@pandecta/contract';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import { Refusal } from '../errors.ts';
import type { Acting, Actor } from '../access/principal.ts';
import { idsIn } from '../searching/store.ts';
import { understand } from '../searching/match.ts';
import type { Services } from '../services.ts';
import { filed, namedFor, placed, said, there, type Named } from './placed.ts';
import { filedIn, findCollection, isBelow, presentCollections, presentPlacements } from './store.ts';

/** Beside the first place it has. What stands below in several places does so in the copy. */
export async function copyCollection(services: Services, actor: Actor, id: string): Promise<Changed> {
  const found = await findCollection(services.db, actor, id);
  const placements = await presentPlacements(services.db, actor);
  const names = new Map((await presentCollections(services.db, actor)).map((c) => [c.id, c]));
  const copies = new Map<string, string>();
  const changes: Change[] = [];
  const copy = async (of: string): Promise<string> => {
    const known = copies.get(of);
    if (known) return known;
    const made = uuidv7();
    copies.set(of, made);
    const { name: was, says, until, rule, allows, mine } = names.get(of)!;
    const fresh = namedFor(actor.userId, { id: made, name: of === id ? `${was} (copy)` : was, mine });
    changes.push(there(fresh, true));
    const words = {
      ...(says && { says: { before: null, after: says } }),
      ...(until && { until: { before: null, after: { ...until } } }),
      ...(rule && { rule: { before: null, after: { ...rule } } }),
      ...(allows && { allows: { before: null, after: allows } }),
    };
    if (Object.keys(words).length) changes.push(said(fresh, words));
    const sources = await filedIn(services.db, actor.workspaceId, of);
    if (sources.length) changes.push(filed(fresh, sources, true));
    for (const below of placements.filter((p) => p.parent === of)) {
      const child = await copy(below.collection);
      changes.push(placed(namedFor(actor.userId, { ...names.get(below.collection)!, id: child }), made));
    }
    return made;
  };
  const made = await copy(id);
  const parent = placements.find((p) => p.collection === id)?.parent ?? null;
  changes.push(placed({ ...found, id: made, name: `${found.name} (copy)` }, parent));
  const says = `Copied ${found.name}${copies.size > 1 ? ' with the collections below it' : ''}; its sources are in both`;
  return { ...answer(await commit(services, actor, { do: 'all', says, changes })), id: made };
}

/** Their sources and what stands below them become its own, and they go. */
export async function mergeCollections(
  services: Services,
  actor: Actor,
  id: string,
  others: string[],
): Promise<Changed> {
  const { db } = services;
  const into = await findCollection(db, actor, id);
  const placements = await presentPlacements(db, actor);
  const collections = await presentCollections(db, actor);
  const under = new Set(placements.filter((p) => p.parent === id).map((p) => p.collection));
  const changes: Change[] = [];
  const merged: string[] = [];
  for (const other of new Set(others)) {
    if (other === id) continue;
    const gone = await findCollection(db, actor, other);
    if (into.owner && !gone.owner)
      throw new Refusal('invalid', `${gone.name} is seen by all members, and ${into.name} by you alone`);
    if (await isBelow(db, actor.workspaceId, id, other)) throw new Refusal('circular');
    merged.push(gone.name);
    const sources = await filedIn(db, actor.workspaceId, other);
    if (sources.length) changes.push(filed(into, sources, true));
    for (const below of placements.filter(
      (p) => p.parent === other && p.collection !== id && !under.has(p.collection),
    )) {
      under.add(below.collection);
      const child = collections.find((c) => c.id === below.collection)!;
      changes.push(placed(namedFor(actor.userId, child), id));
    }
    changes.push(...goes(gone, placements));
  }
  if (!merged.length) return { changeId: null, says: 'There is no other collection to merge' };
  const says = `Merged ${merged.join(', ')} into ${into.name}`;
  return answer(await commit(services, actor, { do: 'all', says, changes }));
}

/** The collection goes, and what stands in it and below goes to the bin, wherever else it stands. */
export async function binCollection(services: Services, caller: Acting, id: string): Promise<Changed> {
  const { actor } = caller;
  const gone = await findCollection(services.db, actor, id);
  const ids = await idsIn(services, await understand(services.db, caller, { collection: id }), 0, Infinity);
  const placements = await presentPlacements(services.db, actor);
  const changes: Change[] = [
    ...(ids.length ? [{ do: 'presence', sources: ids, from: 'live', to: 'bin' } as const] : []),
    ...goes(gone, placements),
  ];
  const says = `Removed the collection ${gone.name} and moved its ${countSources(ids.length)} to the bin`;
  return answer(await commit(services, actor, { do: 'all', says, changes }));
}

/** A collection goes from wherever it stands. */
const goes = (gone: Named, placements: Placement[]): Change[] => [
  ...placements.filter((p) => p.collection === gone.id).map((p) => placed(gone, p.parent, p.id)),
  there(gone, false),
];
