/** Who may do something to collections: to their own any member, to those all members see whoever may do such a thing. */
import type { Action } from '@pandecta/contract';
import { may } from '../access/permissions.ts';
import type { Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';
import type { Acting } from '../access/principal.ts';
import { findCollection, presentPlacements } from './store.ts';

/**
 * @param of collections; null for the top of the tree, which is everyone's
 * @throws Refusal where one is everyone's and the member may not, or is not there for them
 */
export async function refuseOthers(db: Db, call: Acting, of: (string | null)[], action: Action): Promise<void> {
  if (may(call.workspace.role, action)) return;
  for (const id of of) if (!id || !(await findCollection(db, call.actor, id)).owner) throw new Refusal('not_allowed');
}

/** @throws Refusal the same for what stands at a placement */
export async function refusePlacement(db: Db, call: Acting, placement: string): Promise<void> {
  const found = (await presentPlacements(db, call.actor)).find((p) => p.id === placement);
  if (!found) throw new Refusal('no_such_collection');
  await refuseOthers(db, call, [found.collection], 'arrange');
}
