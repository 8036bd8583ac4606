/** What the stewards of a workspace chose. */
import { sql } from 'drizzle-orm';
import type { Db } from '../database/connect.ts';
import { json, one } from '../database/read.ts';
import type { WorkspaceSettings } from './tables.ts';

/** Without what nobody chose yet. */
export async function settingsOf(db: Db, workspaceId: string): Promise<WorkspaceSettings> {
  const found = await one(
    db,
    { settings: json<WorkspaceSettings>() },
    sql`select settings from workspaces where id = ${workspaceId}`,
  );
  return found?.settings ?? {};
}

/** The other settings stay. */
export async function setSettings(db: Db, workspaceId: string, settings: WorkspaceSettings): Promise<void> {
  await db.execute(
    sql`update workspaces set settings = settings || ${JSON.stringify(settings)}::jsonb where id = ${workspaceId}`,
  );
}
