/** Carries a change out within a transaction, and stores it. */
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Changed } from '@pandecta/contract';
import { describe, isEmpty, sourcesOf, type Change } from '@pandecta/core/source';
import { array, type Db } from '../database/connect.ts';
import type { Actor } from '../http/authorise.ts';
import { derive, type Progress } from '../indexing/derive.ts';
import { carryOut } from './carry-out.ts';

export interface Committed {
  changeId: string | null;
  change: Change;
  says: string;
  /** The job that carries it out, when it was too large to be done at once. */
  jobId?: string;
}

/** What the person is answered. */
export const answer = ({ changeId, says, jobId }: Committed): Changed => ({ changeId, says, ...(jobId && { jobId }) });

interface How {
  /** The change this one takes back. */
  undoes?: string;
  progress?: Progress;
}

/**
 * The caller kicks the indexer after its transaction. Deriving comes last: from then on no other write of the
 * workspace can end before this one.
 */
export async function commitWithin(
  tx: Db,
  { workspaceId, userId }: Actor,
  change: Change,
  { undoes, progress }: How = {},
): Promise<Committed> {
  const outcome = await carryOut(tx, workspaceId, change);
  if (isEmpty(outcome.change)) return { changeId: null, change: outcome.change, says: 'Nothing needed to change' };
  const says = describe(outcome.change);
  const changeId = uuidv7();
  await tx.execute(sql`insert into changes (workspace_id, id, actor_id, change, says, undoes)
    values (${workspaceId}, ${changeId}, ${userId}, ${JSON.stringify(outcome.change)}::jsonb, ${says}, ${undoes ?? null})`);
  await tx.execute(sql`insert into change_sources (workspace_id, source_id, change_id)
    select ${workspaceId}::uuid, id, ${changeId}::uuid from unnest(${array(sourcesOf(outcome.change), 'uuid')}) id`);
  await derive(tx, workspaceId, outcome.altered, progress);
  return { changeId, change: outcome.change, says };
}
