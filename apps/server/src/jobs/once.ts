/** Work that is done in one transaction, in which it is noted too: begun again after that, it only says what came of it. */
import { eq } from 'drizzle-orm';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { jobs } from './tables.ts';

/** What came of a job. */
interface Result {
  changeId: string | null;
  says: string;
}

/** Notes, in the transaction that makes the job, what is to be done. */
export async function noteInput(tx: Db, workspaceId: string, jobId: string, input: unknown): Promise<void> {
  await within(tx, workspaceId).update(jobs, { input }, eq(jobs.id, jobId));
}

/** What is to be done and by whom; or what came of it already. */
export async function inputOf<I>(
  db: Db,
  workspaceId: string,
  jobId: string,
): Promise<{ done: string; input: null; userId: null } | { done: null; input: I; userId: string }> {
  const { id, input, result, madeBy } = jobs;
  const row = await within(db, workspaceId).first(jobs, { input, result, madeBy }, eq(id, jobId));
  if (row?.result) return { done: (row.result as Result).says, input: null, userId: null };
  if (!row?.input) throw new Refusal('no_such_job');
  return { done: null, input: row.input as I, userId: row.madeBy };
}

/** Notes, in the transaction that does it, what came of it. */
export async function noteResult(tx: Db, workspaceId: string, jobId: string, result: Result): Promise<void> {
  await within(tx, workspaceId).update(jobs, { input: null, result }, eq(jobs.id, jobId));
}
