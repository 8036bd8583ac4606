/** All sources of a workspace are compared with each other once more: what keys that too many share may have hidden is found too. */
import { sql } from 'drizzle-orm';
import { formatNumber } from '@pandecta/core/wording';
import { withoutTimeout, type Db } from '../database/connect.ts';
import { number, one } from '../database/read.ts';
import { NOTED } from '../indexing/derive.ts';
import type { Job, Progress } from '../queue/kind.ts';
import { defineJob } from '../capability.ts';
import { notify } from '../news/notify.ts';
import type { Services } from '../services.ts';
import type { CompareAllSays } from '../workers/matching.ts';
import type { Workers } from '../workers/pool.ts';
import { keepPairs, UNSEEN, type LikelyPair } from './compare.ts';
import { withAllRecords } from '../records/stream.ts';

export const compareJob = defineJob<null>({
  kind: 'compare',
  atOnce: 1,
  nothing: 'earlier results are kept',
  failed: 'Comparing failed on the server; earlier results are kept.',
  work: compareWork,
});

/** Written at one go. */
const SHARE = 5000;

async function compareWork(
  { db, workers, followers }: Services,
  { workspaceId }: Job<null>,
  progress: Progress,
): Promise<string> {
  const revision = await revisionNow(db, workspaceId);
  const { compared, pairs } = await compareAll(db, workers, workspaceId, progress);
  await withoutTimeout(db, async (tx) => {
    // Pairs that hold one file were found by it, and are found again when either is altered.
    await tx.execute(sql`delete from likely_pairs where workspace_id = ${workspaceId} and not same_file`);
    for (let i = 0; i < pairs.length; i += SHARE) await keepPairs(tx, workspaceId, pairs.slice(i, i + SHARE));
    await queueAltered(tx, workspaceId, revision);
    await notify(tx, { workspace: workspaceId, touched: { kinds: { pair: 'all' } } });
  });
  followers.kick();
  return `Compared ${formatNumber(compared)} sources with each other; ${formatNumber(pairs.length)} pairs are worth a look`;
}

const revisionNow = async (db: Db, workspaceId: string): Promise<number> =>
  (await one(db, { revision: number }, sql`select revision from workspaces where id = ${workspaceId}`))!.revision;

/** What was altered since a revision is compared by itself, as it is now; all of it where that is not known any more. */
async function queueAltered(tx: Db, workspaceId: string, since: number): Promise<void> {
  const forgotten = (await revisionNow(tx, workspaceId)) - since >= NOTED;
  await tx.execute(sql`insert into compare_queue (workspace_id, source_id)
    select workspace_id, source_id from source_sort where workspace_id = ${workspaceId} and (${forgotten} or number in
      (select unnest(numbers) from derivations where workspace_id = ${workspaceId} and revision > ${since}))
    on conflict do nothing`);
}

async function compareAll(
  db: Db,
  workers: Workers,
  workspaceId: string,
  progress: Progress,
): Promise<{ compared: number; pairs: LikelyPair[] }> {
  const { ids, found } = await withAllRecords(db, workspaceId, {
    presences: ['live', 'intake'],
    without: UNSEEN,
    run: (port, stop) => workers.run('compareAll', port, [port], stop),
    read: (n) => progress(0, 0, `Reading ${formatNumber(n)} sources`),
    says: (message) => {
      const { done, total } = message as CompareAllSays;
      const part = Math.round((done / total) * 100);
      return progress(part, 100, `Comparing: ${part} %`);
    },
  });
  await progress(100, 100, 'Saving the results');
  const { a, b, probability } = found;
  const pairs = Array.from(probability, (p, i) => ({ of: ids[a[i]!]!, other: ids[b[i]!]!, probability: p, sameFile: false })); // prettier-ignore
  return { compared: ids.length, pairs };
}
