/** Carries a change out within a transaction, and stores it. */
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Changed } from '@pandecta/contract';
import { describe, kindsIn, ownerOf, ownersIn, seenBy, toJson, touches, type Change } from '@pandecta/core/changes';
import type { Db } from '../database/connect.ts';
import { table } from '../database/sql.ts';
import { within } from '../database/within.ts';
import type { Actor } from '../access/principal.ts';
import { derive, type Progress } from '../indexing/derive.ts';
import { notify, touchedBy } from '../news/notify.ts';
import { carryOut } from './carriers.ts';
import { takeEarlier } from './joining.ts';
import { changes } from './tables.ts';

export interface Committed {
  changeId: string | null;
  change: Change;
  says: string;
  /** The job that carries it out, when it was too large to be done at once. */
  jobId?: string;
}

/** What the person is answered. */
export const answer = ({ changeId, says, jobId }: Committed): Changed => ({ changeId, says, ...(jobId && { jobId }) });

export interface How {
  /** The change this one takes back. */
  undoes?: string;
  progress?: Progress;
  /** It becomes one entry of the history with the same person's edit of the same fields just before it. */
  joins?: boolean;
}

/** What others see of a change that is all of several members' own. */
const NOTHING_SEEN: Change = { do: 'all', says: '', changes: [] };

/**
 * The caller kicks the indexer after its transaction. Deriving comes last: from then on no other write of the
 * workspace can end before this one.
 * @throws Conflict where the change would take back someone's later work
 */
export async function commitWithin(
  tx: Db,
  { workspaceId, userId }: Actor,
  change: Change,
  { undoes, progress, joins }: How = {},
): Promise<Committed> {
  const { change: carried, altered } = await carryOut(tx, workspaceId, change);
  if (!carried) return { changeId: null, change, says: 'Nothing changed' };
  // What it touches is locked from here on: nobody writes between the edit before and this one.
  const before = joins ? await takeEarlier(tx, { workspaceId, userId }, carried) : undefined;
  const done = before?.change ?? carried;
  const says = describe(done);
  const changeId = uuidv7();
  const touched = touches(done);
  const to = ownerOf(done);
  const owned = { ...(undoes && { undoes }), ...(to && { owner: to }) };
  const stored = {
    id: changeId,
    actorId: userId,
    change: toJson(done),
    kind: done.do,
    size: touched.filter((t) => t.kind === 'source').length,
    kinds: kindsIn(done),
    joined: before?.ids ?? [],
    says,
    ...owned,
  };
  await within(tx, workspaceId).insert(changes, stored);
  await tx.execute(sql`insert into change_subjects (workspace_id, kind, subject_id, change_id)
    select ${workspaceId}::uuid, u.kind, u.id, ${changeId}::uuid
    from ${table('u', { kind: ['text', touched.map((t) => t.kind)], id: ['uuid', touched.map((t) => t.id)] })}`);
  await derive(tx, workspaceId, altered, progress);
  // Of what is each member's own in it the others hear nothing, not even an id; the owner hears of it first.
  for (const owner of to ? [] : ownersIn(done))
    await notify(tx, { workspace: workspaceId, to: owner, touched: touchedBy(touches(seenBy(done, owner)!)) });
  const news = touchedBy(touches(seenBy(done, to) ?? NOTHING_SEEN), changeId);
  // What is of no source in particular may be of any.
  if (!touched.length) news.kinds.source = 'all';
  await notify(tx, { workspace: workspaceId, touched: news, ...(to && { to }) });
  return { changeId, change: done, says };
}
