/** The documents a member has open, and their place in each. */
import { eq } from 'drizzle-orm';
import type { KeptOpen, OpenDocuments } from '@pandecta/contract';
import type { Actor } from '../access/principal.ts';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import { openDocuments } from './tables.ts';

export async function openOf(db: Db, { workspaceId, userId }: Actor): Promise<KeptOpen> {
  const mine = eq(openDocuments.userId, userId);
  const found = await within(db, workspaceId).first(openDocuments, { kept: openDocuments.kept }, mine);
  const { open = [], places = [], last = null } = found?.kept ?? {};
  return { open, places, last };
}

/** What was kept last stands, as one reads in one place at a time. */
export async function keepOpen(db: Db, { workspaceId, userId }: Actor, kept: OpenDocuments): Promise<KeptOpen> {
  await within(db, workspaceId)
    .insert(openDocuments, { userId, kept })
    .onConflictDoUpdate({ target: [openDocuments.workspaceId, openDocuments.userId], set: { kept } });
  return { ...kept, last: kept.last ?? null };
}
