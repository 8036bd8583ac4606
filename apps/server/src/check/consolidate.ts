/** Two collections, or a collection and a result, brought together: what is in both, what is only here, and what is there twice. */
import type { Bring, Brought, Chosen, Consolidate, Consolidation, Told, Twice } from '@pandecta/contract';
import { formatNumber } from '@pandecta/core/wording';
import { commit } from '../changes/service.ts';
import { Refusal } from '../errors.ts';
import type { Acting } from '../access/principal.ts';
import { chosenIds } from '../searching/chosen.ts';
import { findCollection } from '../places/store.ts';
import type { Services } from '../services.ts';
import { catchUp, groupsIn } from './groups.ts';
import { mergeMany } from './merging.ts';
import { findRecords } from '../records/store.ts';
import { findIn, toldOf } from './store.ts';

/** Larger sets are not laid beside each other. */
const MOST = 5000;

interface Sets {
  into: Set<string>;
  from: Set<string>;
}

async function setsOf(services: Services, caller: Acting, collection: string, other: Chosen): Promise<Sets> {
  const { db } = services;
  const into = await findIn(db, caller.actor, collection);
  const from = new Set(await chosenIds(services, caller, other, MOST));
  if (into.size > MOST) throw new Refusal('too_many', formatNumber(MOST), formatNumber(into.size));
  return { into, from };
}

/** Nothing is changed: what bringing the others into the collection would come to. */
export async function consolidation(
  services: Services,
  caller: Acting,
  { collection, ...other }: Consolidate,
): Promise<Consolidation> {
  const { db } = services;
  const workspaceId = caller.workspace.id;
  const { into, from } = await setsOf(services, caller, collection, other);
  const found = await findRecords(db, workspaceId, [...new Set([...into, ...from])]);
  await catchUp(services, workspaceId);
  const groups = await groupsIn(services, workspaceId, [...found.keys()]);
  const told = (id: string): Told => toldOf(id, found.get(id)!);
  // Of a group across both: one that stands here, and each that does not.
  const twice = groups.flatMap((g): Twice[] => {
    const members = g.members.map((m) => m.id);
    const here = members.find((id) => into.has(id));
    if (!here) return [];
    return members
      .filter((id) => !into.has(id))
      .map((id) => ({ here: told(here), other: told(id), class: g.class, versions: g.versions, reasons: g.reasons }));
  });
  const live = (set: Set<string>): string[] => [...set].filter((id) => found.has(id));
  const both = live(from).filter((id) => into.has(id)).length;
  return {
    both,
    onlyHere: live(into).length - both,
    onlyThere: live(from).length - both,
    twice,
  };
}

/** Brings the others into the collection: those that are there twice are merged first, each a change of its own. */
export async function bring(
  services: Services,
  caller: Acting,
  { collection, merge, ...other }: Bring,
): Promise<Brought> {
  const { db } = services;
  const { actor } = caller;
  const { name } = await findCollection(db, actor, collection);
  const { into, from } = await setsOf(services, caller, collection, other);
  const merged = merge.length ? await mergeMany(services, actor, merge.map(({ here, other: o }) => ({ members: [here, o] }))) : { changeIds: [], says: '' }; // prettier-ignore
  const still = await findRecords(db, actor.workspaceId, [...from]);
  const sources = [...still.keys()].filter((id) => !into.has(id));
  const filed = sources.length
    ? await commit(services, actor, { do: 'file', collection, name, sources, present: true })
    : { changeId: null, says: 'Nothing else had to be filed' };
  return {
    changeIds: [...merged.changeIds, ...(filed.changeId ? [filed.changeId] : [])],
    changeId: filed.changeId,
    says: [merged.says, filed.says].filter(Boolean).join('; '),
  };
}
