/** How a kind of change is carried out in SQL: what a capability says of each kind that is its own. */
import type { Change, ChangeKind, ChangeOf } from '@pandecta/core/changes';
import type { Action } from '@pandecta/contract';
import type { Db } from '../database/connect.ts';
import type { Access } from '../access/principal.ts';
import type { Altered } from '../indexing/derive.ts';

export interface Outcome<C = Change> {
  /** The change as far as it altered anything, so that its inverse alters just that; null when it altered nothing. */
  change: C | null;
  /** What must be derived again. */
  altered: Altered;
}

export interface Carrier<C> {
  /** Who may make such a change, and so take it back. */
  may: Action | ((change: C) => Action);
  /**
   * Beyond roles: whether this member may make such a change now. Asked before one is taken back.
   * @throws Refusal where they may not
   */
  refuse?(db: Db, taker: Access, change: C): Promise<void>;
  /**
   * Does what the kind's `apply` says, in SQL.
   * @throws Conflict where it would take back someone's later work
   */
  carryOut(tx: Db, workspaceId: string, change: C): Promise<Outcome<C>>;
  /** The same for several of the kind that follow each other, each of another source: in as few queries as one takes. */
  carryOutMany?(tx: Db, workspaceId: string, changes: C[]): Promise<Outcome<C>[]>;
}

/** One for each kind: a kind without its carrier does not compile. */
export type Carriers = { [K in ChangeKind]: Carrier<ChangeOf<K>> };
/** The kinds of change that one capability carries out. */
export type CarriersOf<K extends ChangeKind> = Pick<Carriers, K>;

export const NOTHING = { change: null, altered: {} } as const satisfies Outcome<never>;
