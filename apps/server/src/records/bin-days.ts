/** How long sources wait in the bin. */
import { sql } from 'drizzle-orm';
import type { Db } from '../database/connect.ts';
import { number, one } from '../database/read.ts';

export const DAYS_IN_BIN = 30;

/** How many days sources wait in the bin of the workspace `w` a query selects. */
export const binDaysOf = sql`coalesce((w.settings->>'binDays')::int, ${DAYS_IN_BIN})`;

/** How many days sources wait in the bin of a workspace. */
export async function binDays(db: Db, workspaceId: string): Promise<number> {
  const found = await one(
    db,
    { days: number },
    sql`select ${binDaysOf} as days from workspaces w where w.id = ${workspaceId}`,
  );
  return found!.days;
}
