/** Work that is done in one transaction, in which it is noted too: begun again after that, it only says what came of it. */
import { eq, sql } from 'drizzle-orm';
import { transact, type Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import { jobs } from './tables.ts';

/** What came of a job. */
export interface Result {
  changeId: string | null;
  says: string;
}

/**
 * Begins the transaction that does it. Of two who carry out one job, since the connection was lost that held it for the
 * first, the later waits here until the other is through.
 * @returns what came of it, where it is done by now
 */
export async function enter(tx: Db, workspaceId: string, jobId: string): Promise<string | null> {
  await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${`once ${jobId}`}, 0))`);
  const row = await within(tx, workspaceId).first(jobs, { result: jobs.result }, eq(jobs.id, jobId));
  return (row?.result as Result | null)?.says ?? null;
}

/**
 * Does the work of a job in one transaction and notes what came of it there: begun again after that, it only says so again.
 * @param begin how the transaction begins: `withoutTimeout` for what takes long
 */
export async function doOnce(
  db: Db,
  { workspaceId, jobId }: { workspaceId: string; jobId: string },
  work: (tx: Db) => Promise<Result>,
  begin: typeof transact = transact,
): Promise<Result> {
  return begin(db, async (tx) => {
    const before = await enter(tx, workspaceId, jobId);
    if (before !== null) return { changeId: null, says: before };
    const result = await work(tx);
    await noteResult(tx, workspaceId, jobId, result);
    return result;
  });
}

/** Notes, in the transaction that does it, what came of it. */
export async function noteResult(tx: Db, workspaceId: string, jobId: string, result: Result): Promise<void> {
  await within(tx, workspaceId).update(jobs, { input: null, result }, eq(jobs.id, jobId));
}
