/** What a workspace lets pass the intake. */
import { sql } from 'drizzle-orm';
import type { GatherSettings } from '@pandecta/contract';
import type { WorkspaceSettings } from '../access/tables.ts';
import type { Db } from '../database/connect.ts';
import { json, one } from '../database/read.ts';

/** Where nobody said otherwise. */
const FIRST: GatherSettings = { passComplete: false, holdReferences: false };

export async function settingsOf(db: Db, workspaceId: string): Promise<GatherSettings> {
  const found = await one(
    db,
    { settings: json<WorkspaceSettings>() },
    sql`select settings from workspaces where id = ${workspaceId}`,
  );
  return { ...FIRST, ...found?.settings.gathering };
}

export async function setSettings(db: Db, workspaceId: string, gathering: GatherSettings): Promise<GatherSettings> {
  await db.execute(
    sql`update workspaces set settings = settings || ${JSON.stringify({ gathering })}::jsonb where id = ${workspaceId}`,
  );
  return gathering;
}
