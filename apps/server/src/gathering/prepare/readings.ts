/** What was read of each input is kept until the import has ended: reading it is what takes long. */
import { eq, sql } from 'drizzle-orm';
import { GOING } from '@pandecta/contract';
import type { Db } from '../../database/connect.ts';
import { array } from '../../database/sql.ts';
import { within } from '../../database/within.ts';
import { importReadings } from '../tables.ts';
import type { Prepared } from './candidate.ts';

/** A file of more references than this is read anew at once, sooner than it could be kept. */
const MOST_KEPT = 200;

type Reading = Omit<Prepared, 'input'>;

export async function readingsOf(db: Db, workspaceId: string, importId: string): Promise<Map<number, Reading>> {
  const { ordinal, prepared } = importReadings;
  const kept = await within(db, workspaceId).all(
    importReadings,
    { ordinal, prepared },
    eq(importReadings.importId, importId),
  );
  return new Map(kept.map((k) => [k.ordinal, k.prepared]));
}

export async function keepReading(
  db: Db,
  workspaceId: string,
  importId: string,
  ordinal: number,
  { input: _, ...prepared }: Prepared,
): Promise<void> {
  if (prepared.candidates.length > MOST_KEPT) return;
  // One that was being read as the job came to rest may be read once more.
  await within(db, workspaceId).insert(importReadings, { importId, ordinal, prepared }).onConflictDoNothing();
}

export const forgetReadings = (db: Db, workspaceId: string, importId: string): Promise<unknown> =>
  within(db, workspaceId).delete(importReadings, eq(importReadings.importId, importId));

/** Of imports that were cancelled, or failed, over all workspaces. */
export const forgetEnded = (db: Db): Promise<unknown> =>
  db.execute(sql`delete from import_readings r using imports i, jobs j
    where i.workspace_id = r.workspace_id and i.id = r.import_id and j.workspace_id = i.workspace_id and j.id = i.job_id
      and not j.state = any(${array(GOING, 'text')})`);
