/** Saved searches and the folders they lie in, as entries of the workspace's lists. */
import type { Ask } from '@pandecta/contract';
import type { Entry } from '@pandecta/core/changes';
import type { Db } from '../database/connect.ts';
import { entryNamed } from '../lists/store.ts';

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
}

/** What a saved search of this name asks, of those the member may see. */
export async function savedNamed(
  db: Db,
  workspaceId: string,
  member: string,
  name: string,
): Promise<{ id: string; ask: Ask } | undefined> {
  const found = await entryNamed<SavedValue>(db, { workspaceId, userId: member }, 'saved', name);
  return found && { id: found.id, ask: found.value.ask };
}
