/** What collections have in common, and what each has alone; and how many sources those with a rule hold. */
import { setsFrom, type Condition } from '@pandecta/core/narrowing';
import type { CompareReply, PlacesReply } from '@pandecta/contract';
import { Refusal } from '../errors.ts';
import type { Acting } from '../http/authorise.ts';
import { understand, type Question } from '../searching/match.ts';
import { count } from '../searching/store.ts';
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
  const parts: CompareReply['parts'] = [];
  for (let choice = 1; choice < 2 ** ids.length; choice += 1) {
    const stands = (i: number): boolean => Boolean(choice & (1 << i));
    const n = await count(services, together(asked, stands));
    if (n) parts.push({ in: ids.filter((_, i) => stands(i)), count: n });
  }
  // Each of its sources is in just one of the parts it has.
  const countOf = (id: string): number => parts.reduce((sum, p) => sum + (p.in.includes(id) ? p.count : 0), 0);
  return { collections: chosen.map((c) => ({ ...c, count: countOf(c.id) })), parts };
}

/** Several questions as one: what the chosen find, and none of the others. */
function together(asked: Question[], stands: (i: number) => boolean): Question {
  const sets = asked.flatMap((q) => q.compiled.sets);
  let from = 0;
  const parts = asked.map((q, i): Condition => {
    const part = setsFrom(q.condition, from);
    from += q.compiled.sets.length;
    return stands(i) ? part : { is: 'not', part };
  });
  const [first] = asked;
  return { ...first!, compiled: { ...first!.compiled, sets }, condition: { is: 'and', parts } };
}
