/** What collections have in common, and what each has alone; and how many sources those with a rule hold. */
import type { CompareReply, PlacesReply } from '@pandecta/contract';
import { Refusal } from '../errors.ts';
import type { Acting } from '../access/principal.ts';
import { understand, type Question } from '../searching/match.ts';
import { count, overlaps } from '../searching/store.ts';
import type { Services } from '../services.ts';
import { findPlaces, presentCollections, withRules } from './store.ts';

/** The places with the counts of those whose sources a rule finds, too. */
export async function placesOf(services: Services, caller: Acting): Promise<PlacesReply> {
  const reply = await findPlaces(services, caller.actor);
  if (!reply.collections.some((c) => c.rule)) return reply;
  const ruled = new Set(await withRules(services.db, caller.actor));
  for (const collection of reply.collections)
    if (ruled.has(collection.id))
      collection.count = await count(services, await understand(services.db, caller, { collection: collection.id }));
  return reply;
}

/** @throws Refusal where one of them is not there */
export async function compareCollections(services: Services, caller: Acting, of: string[]): Promise<CompareReply> {
  const ids = [...new Set(of)];
  const known = await presentCollections(services.db, caller.actor);
  const chosen = ids.map((id) => known.find((c) => c.id === id));
  if (!chosen.every((c) => c !== undefined)) throw new Refusal('no_such_collection');
  const asked: Question[] = [];
  for (const id of ids) asked.push(await understand(services.db, caller, { collection: id }));
  const counts = await overlaps(services, asked);
  const parts = counts.flatMap((n, choice) => (n ? [{ in: ids.filter((_, i) => choice & (1 << i)), count: n }] : []));
  // Each of its sources is in just one of the parts it has.
  const countOf = (id: string): number => parts.reduce((sum, p) => sum + (p.in.includes(id) ? p.count : 0), 0);
  return { collections: chosen.map((c) => ({ ...c, count: countOf(c.id) })), parts };
}
