/** What holds for the entries of each list beside what holds for all: its capability says it. */
import type { Entry, List } from '@pandecta/core/changes';
import type { Access } from '../access/principal.ts';
import type { Db } from '../database/connect.ts';
import type { Altered } from '../indexing/derive.ts';
import { Registry } from '../registry.ts';

export interface ListKind {
  /** @throws Refusal where the member may not alter an entry from one of these to the other */
  refuse?(db: Db, taker: Access, values: (Entry | null)[]): Promise<void>;
  /** What must be derived again once an entry was altered. */
  follows?(tx: Db, workspaceId: string, entry: string): Promise<Altered>;
}

/** One for each list: one without does not compile. */
export type ListKinds = Record<List, ListKind>;
export type ListsOf<L extends List> = Pick<ListKinds, L>;

export const LIST_KINDS = new Registry<ListKinds>('lists');
