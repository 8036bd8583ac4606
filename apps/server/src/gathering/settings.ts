/** What a workspace lets pass the intake. */
import type { GatherSettings } from '@pandecta/contract';
import { setSettings, settingsOf } from '../access/settings.ts';
import type { Db } from '../database/connect.ts';

/** Where nobody said otherwise. */
const FIRST: GatherSettings = { passComplete: false, holdReferences: false };

export async function gatherSettingsOf(db: Db, workspaceId: string): Promise<GatherSettings> {
  return { ...FIRST, ...(await settingsOf(db, workspaceId)).gathering };
}

export async function setGatherSettings(
  db: Db,
  workspaceId: string,
  gathering: GatherSettings,
): Promise<GatherSettings> {
  await setSettings(db, workspaceId, { gathering });
  return gathering;
}
