/** What a member says of sources for themselves: how far they have read them, and which they starred. */
import type { ReadingState } from '@pandecta/core/changes';
import { commit, type Needed } from '../changes/service.ts';
import { answer } from '../changes/commit.ts';
import type { Changed } from '@pandecta/contract';
import type { Actor } from '../access/principal.ts';
import { readingOf } from './store.ts';

export async function setReading(
  services: Needed,
  actor: Actor,
  ids: string[],
  state: ReadingState | null,
): Promise<Changed> {
  const before = await readingOf(services.db, actor, ids);
  const states = Object.fromEntries([...before].map(([id, was]) => [id, { before: was, after: state }]));
  return answer(await commit(services, actor, { do: 'reading', member: actor.userId, states }));
}

export async function setStar(services: Needed, actor: Actor, ids: string[], present: boolean): Promise<Changed> {
  return answer(await commit(services, actor, { do: 'star', member: actor.userId, sources: ids, present }));
}
