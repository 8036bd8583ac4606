/** The sources a request is about: those it names, or all that match its question but those it leaves out. */
import type { Chosen } from '@pandecta/contract';
import { formatNumber } from '@pandecta/core/wording';
import { Refusal } from '../errors.ts';
import type { Acting } from '../access/principal.ts';
import type { Services } from '../services.ts';
import { visibleIds } from '../subjects/visible.ts';
import { understand } from './match.ts';
import { idsIn } from './store.ts';

/**
 * @param most how many there may be at most
 * @throws Refusal where neither is said, or both
 */
export async function chosenIds(
  services: Pick<Services, 'db' | 'columns'>,
  caller: Acting,
  { ids, matching, except = [] }: Chosen,
  most = Infinity,
): Promise<string[]> {
  if (Boolean(ids) === Boolean(matching)) throw new Refusal('invalid', 'either ids are named, or a question');
  const left = new Set(except);
  const found = ids
    ? await visibleIds(services.db, caller.actor, 'source', ids)
    : await idsIn(services, await understand(services.db, caller, matching!), 0, Infinity);
  const chosen = left.size ? found.filter((id) => !left.has(id)) : found;
  if (chosen.length > most) throw new Refusal('too_many', formatNumber(most), formatNumber(chosen.length));
  return chosen;
}
