/** Carries changes out, each by what the capability it belongs to says of its kind. */
import type { Action, Role } from '@pandecta/contract';
import { touches, type Change } from '@pandecta/core/changes';
import { may } from '../access/permissions.ts';
import type { Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';
import type { Access } from '../access/principal.ts';
import { Registry } from '../registry.ts';
import type { Carrier, Carriers, Outcome } from './carry.ts';

/** Of all capabilities; several at once carries out its parts. */
export const CARRIERS = new Registry<Omit<Carriers, 'all'>>('kinds of change');

const SEVERAL: Pick<Carriers, 'all'> = {
  all: {
    // Its parts say it.
    may: 'read',
    async carryOut(tx, workspaceId, change) {
      const outcomes: Outcome[] = [];
      for (const run of runsOf(change.changes)) {
        const { carryOutMany } = carrierOf(run[0]!.do);
        if (carryOutMany && run.length > 1) outcomes.push(...(await carryOutMany(tx, workspaceId, run)));
        else for (const part of run) outcomes.push(await carryOut(tx, workspaceId, part));
      }
      const changes = outcomes.flatMap((o) => o.change ?? []);
      return {
        change: changes.length ? { ...change, changes } : null,
        altered: {
          records: outcomes.flatMap((o) => o.altered.records ?? []),
          facets: outcomes.flatMap((o) => o.altered.facets ?? []),
          some: outcomes.flatMap((o) => o.altered.some ?? []),
        },
      };
    },
  },
};

const carrierOf = (kind: Change['do']): Carrier<Change> =>
  (kind === 'all' ? SEVERAL.all : CARRIERS.all[kind]) as Carrier<Change>;

/** Changes of one kind that follow each other, as long as none touches what another of the run touches. */
function runsOf(changes: Change[]): Change[][] {
  const runs: Change[][] = [];
  let touched = new Set<string>();
  for (const change of changes) {
    const own = touches(change).map((s) => `${s.kind} ${s.id}`);
    const run = runs.at(-1);
    if (run && run[0]!.do === change.do && !own.some((id) => touched.has(id))) run.push(change);
    else {
      runs.push([change]);
      touched = new Set();
    }
    for (const id of own) touched.add(id);
  }
  return runs;
}

/** What one must be allowed to, to make such a change. */
function needed(change: Change): Action[] {
  if (change.do === 'all') return [...new Set(change.changes.flatMap(needed))];
  const { may } = carrierOf(change.do);
  return [typeof may === 'function' ? may(change) : may];
}

/** @throws Refusal where a member of that role may not make such a change */
export function refuseByRole(role: Role, change: Change): void {
  if (needed(change).some((action) => !may(role, action))) throw new Refusal('not_allowed');
}

/** @throws Refusal where something beyond their role keeps the member from making such a change, or one of its parts */
export async function refuseBy(db: Db, taker: Access, change: Change): Promise<void> {
  if (change.do === 'all') for (const part of change.changes) await refuseBy(db, taker, part);
  else await carrierOf(change.do).refuse?.(db, taker, change);
}

/** Carries a change out in SQL, as the kind's `apply` says on the model. */
export const carryOut = (tx: Db, workspaceId: string, change: Change): Promise<Outcome> =>
  carrierOf(change.do).carryOut(tx, workspaceId, change);
