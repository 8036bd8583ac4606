import { sql } from 'drizzle-orm';
import type { Db } from '@pandecta/server/database/connect';
import { one, text } from '@pandecta/server/database/read';

/** Waits for a job of the demo; one that fails ends the loading. */
export async function jobEnds(db: Db, workspaceId: string, jobId: string): Promise<void> {
  for (;;) {
    const job = await one(
      db,
      { state: text(), title: text(), says: text() },
      sql`select state, title, says from jobs where workspace_id = ${workspaceId} and id = ${jobId}`,
    );
    if (job?.state === 'done') return;
    if (job?.state === 'failed' || job?.state === 'cancelled') throw new Error(`${job.title}: ${job.says}`);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}
