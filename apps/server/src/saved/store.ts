/** Saved searches and the folders they lie in, as entries of the workspace's lists. */
import { eq, sql } from 'drizzle-orm';
import type { Ask, WatchState } from '@pandecta/contract';
import type { Entry } from '@pandecta/core/changes';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import type { Actor } from '../access/principal.ts';
import { entryNamed } from '../lists/store.ts';
import type { NumberSet } from '../columns/load.ts';
import { savedWatches } from './tables.ts';

export interface SavedValue extends Entry {
  describes: string;
  keywords: string[];
  ask: Ask;
  folder: string | null;
  madeBy: string;
  madeAt: string;
}

export interface FolderValue extends Entry {
  parent: string | null;
  /** True where stewards alone alter what lies in it. */
  locked?: boolean;
}

/** What a saved search of this name asks, of those the member may see. */
export async function savedNamed(db: Db, actor: Actor, name: string): Promise<{ id: string; ask: Ask } | undefined> {
  const found = await entryNamed<SavedValue>(db, actor, 'saved', name);
  return found && { id: found.id, ask: found.value.ask };
}

/** The searches a member watches, by their ids. */
export async function watchesOf(db: Db, { workspaceId, userId }: Actor): Promise<Map<string, WatchState>> {
  const { saved, since, mail, says, member } = savedWatches;
  const found = await within(db, workspaceId).all(savedWatches, { saved, since, mail, says }, eq(member, userId));
  return new Map(found.map(({ saved: id, ...state }) => [id, state]));
}

/** The numbers a member has seen in it. */
export const seenSet = (workspaceId: string, member: string, saved: string): NumberSet => ({
  query: sql`select unnest(seen) as number from saved_watches
    where workspace_id = ${workspaceId} and member = ${member} and saved = ${saved}`,
});
