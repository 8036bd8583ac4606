/** Carries changes out, undoes and redoes them: at once, or as a job where they touch very many sources. */
import { and, desc, eq, inArray, isNull, sql, type SQL } from 'drizzle-orm';
import { GOING } from '@pandecta/contract';
import {
  Conflict,
  countSources,
  fromJson,
  invert,
  kindsIn,
  makes,
  NotAChange,
  ownerOf,
  sourcesOf,
  SUBJECT_KINDS,
  toJson,
  yieldTo,
  type Change,
} from '@pandecta/core/changes';
import { formatNumber } from '@pandecta/core/wording';
import { codeOf, GAVE_UP, transact, withoutTimeout, type Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import type { Access, Actor } from '../access/principal.ts';
import type { Progress } from '../indexing/derive.ts';
import type { Job, Progress as JobProgress } from '../queue/kind.ts';
import { doOnce, type Result } from '../queue/once.ts';
import { jobs } from '../queue/tables.ts';
import type { Services } from '../services.ts';
import { lockSources } from '../records/store.ts';
import { refuseBy, refuseByRole } from './carriers.ts';
import { commitWithin, type Committed, type How } from './commit.ts';
import { SUBJECTS } from '../subjects/registry.ts';
import { changeVisible } from './visible.ts';
import { refuseStale, refuseUndo, workSince } from './since.ts';
import { changeJob } from './jobs.ts';
import { changes } from './tables.ts';

/** A change to more sources than these takes many seconds, and becomes a job. */
export const MOST_AT_ONCE = 10_000;

/** What is to be done: a change, or the taking back of one that stands. */
export type Deed = { change: Record<string, unknown>; joins?: boolean } | { takeBack: string; as: Back };

type Back = 'undo' | 'redo';
const SAYS = {
  undo: { done: 'Undone: ', doing: 'Undoing' },
  redo: { done: 'Done again: ', doing: 'Redoing' },
} as const satisfies Record<Back, object>;

export type Needed = Pick<Services, 'db' | 'followers' | 'jobs'>;

/**
 * Carries a change out and stores it, in a transaction of its own, and then wakes the indexer.
 * @param how.joins see `How`
 */
export async function commit(
  services: Needed,
  actor: Actor,
  change: Change,
  { joins }: Pick<How, 'joins'> = {},
): Promise<Committed> {
  return enact(
    services,
    actor,
    { change: toJson(change), ...(joins && { joins }) },
    change,
    `A change to ${countSources(sourcesOf(change).length)}`,
  );
}

/**
 * As `commit`, where the kind of change says by itself what its maker must be allowed to: any member alters their own.
 * @throws Refusal where their role does not allow it
 */
export async function commitByRole(
  services: Needed,
  actor: Access,
  change: Change,
  how?: Pick<How, 'joins'>,
): Promise<Committed> {
  refuseByRole(actor.role, change);
  return commit(services, actor, change, how);
}

/**
 * Carries out a change that rests on how these sources stand: they are locked before `decide` reads anything, so that of
 * two who decide on the same at once the second decides on what the first left.
 */
export async function commitDecided(
  { db, followers }: Needed,
  actor: Actor,
  on: string[],
  decide: (tx: Db) => Promise<Change>,
): Promise<Committed> {
  const committed = await transact(db, async (tx) => {
    await lockSources(tx, actor.workspaceId, on);
    return carryOutDeed(tx, actor, { change: toJson(await decide(tx)) });
  });
  followers.kick();
  return committed;
}

/** Undoes the named change, or the last of this person's that stands; undoing an undo does the thing again. */
export async function undo(services: Needed, actor: Access, changeId?: string): Promise<Committed> {
  await refuseWhileOneGoesOn(services.db, actor);
  if (changeId) {
    const found = await named(services.db, actor, changeId);
    if (!found) throw new Refusal('no_such_change');
    return enactTakingBack(services, actor, found, 'undo');
  }
  return unlessTaken(async () => {
    const last = await stored(
      services.db,
      actor,
      and(eq(changes.actorId, actor.userId), isNull(changes.undoes), isNull(changes.undoneBy)),
    );
    if (!last) throw new Refusal('nothing_to_undo');
    return enactTakingBack(services, actor, last, 'undo');
  });
}

/** Does again what this person undid last, as long as they have done nothing else since. */
export async function redo(services: Needed, actor: Access): Promise<Committed> {
  await refuseWhileOneGoesOn(services.db, actor);
  return unlessTaken(async () => {
    const last = await stored(services.db, actor, and(eq(changes.actorId, actor.userId), isNull(changes.undoneBy)));
    if (!last?.undoes) throw new Refusal('nothing_to_redo');
    return enactTakingBack(services, actor, last, 'redo');
  });
}

/** Ctrl+Z twice in a moment: the second finds the step the first is just taking, and goes on to the one before. */
async function unlessTaken(takeLast: () => Promise<Committed>): Promise<Committed> {
  for (;;) {
    try {
      return await takeLast();
    } catch (error) {
      if (!(error instanceof Refusal) || error.code !== 'already_undone') throw error;
    }
  }
}

/** A trial that went well. */
class Tried extends Error {}
/** Of changes to more sources it is not tried beforehand. */
const MOST_TRIED = 1000;

/** How long this waits for another's transaction at most; after that the undo itself will tell. */
const TRIAL_WAITS = '200ms';

/**
 * Why a change cannot be undone, in a sentence; empty where it can, or where nobody knows yet. To find out, the undo is carried
 * out and rolled back.
 */
export async function whyNotUndo(services: Needed, actor: Access, id: string): Promise<string> {
  const found = await named(services.db, actor, id);
  if (!found) throw new Refusal('no_such_change');
  try {
    await refuseTakingBack(services.db, actor, found.change);
    if (found.undoneBy || sourcesOf(found.change).length > MOST_TRIED) return '';
    await transact(services.db, async (tx) => {
      await tx.execute(sql`select set_config('lock_timeout', ${TRIAL_WAITS}, true)`);
      await carryOutDeed(tx, actor, { takeBack: id, as: 'undo' });
      throw new Tried();
    });
    return '';
  } catch (error) {
    if (error instanceof Tried || codeOf(error) === GAVE_UP.lock) return '';
    if (error instanceof Refusal) return error.message;
    throw error;
  }
}

/** What an undo needs is what the deed needs. */
async function refuseTakingBack(db: Db, actor: Access, change: Change): Promise<void> {
  const owner = ownerOf(change);
  if (owner && owner !== actor.userId) throw new Refusal('not_yours');
  refuseByRole(actor.role, change);
  await refuseBy(db, actor, change);
}

async function enactTakingBack(
  services: Needed,
  actor: Access,
  { id, change, says }: Stored,
  as: Back,
): Promise<Committed> {
  await refuseTakingBack(services.db, actor, change);
  return enact(services, actor, { takeBack: id, as }, change, `${SAYS[as].doing} “${says}”`);
}

async function enact(
  { db, followers, jobs: queue }: Needed,
  actor: Actor,
  deed: Deed,
  change: Change,
  doing: string,
): Promise<Committed> {
  const size = sourcesOf(change).length;
  // Of what went for good nothing is there: to take it back says so at once.
  const isGone = 'takeBack' in deed && change.do === 'presence' && change.from === 'bin' && change.to === 'none';
  if (size > MOST_AT_ONCE && !isGone) {
    const title = `A change to ${countSources(size)}`;
    const jobId = await queue.queue(changeJob, actor, title, deed);
    return { changeId: null, change, says: `${doing} takes a while; Jobs shows how far it is`, jobId };
  }
  const committed = await transact(db, (tx) => carryOutDeed(tx, actor, deed));
  followers.kick();
  return committed;
}

/** The work of the job of a large change. What it did is noted in the same transaction, so that it is not done twice. */
export async function doLargeChange(
  { db, followers }: Needed,
  { workspaceId, jobId, userId, input }: Job<Deed>,
  progress: JobProgress,
): Promise<string> {
  await progress(0, 0, 'Writing the change');
  const carryOut = async (tx: Db): Promise<Result> => {
    const committed = await carryOutDeed(tx, { workspaceId, userId }, input, (done, total) =>
      progress(done, total, `${formatNumber(done)} of ${countSources(total)}`),
    );
    return { changeId: committed.changeId, says: committed.says };
  };
  const { changeId, says } = await doOnce(db, { workspaceId, jobId }, carryOut, withoutTimeout);
  if (changeId) followers.kick();
  return says;
}

async function carryOutDeed(tx: Db, actor: Actor, deed: Deed, progress?: Progress): Promise<Committed> {
  try {
    return 'change' in deed
      ? await commitWithin(tx, actor, fromJson(deed.change, { by: actor.userId }), { progress, joins: deed.joins })
      : await takeBack(tx, actor, deed.takeBack, deed.as, progress);
  } catch (error) {
    if (!(error instanceof Conflict)) throw error;
    throw await ('change' in deed ? refuseStale : refuseUndo)(tx, actor, error);
  }
}

async function takeBack(tx: Db, actor: Actor, id: string, as: Back, progress?: Progress): Promise<Committed> {
  const found = await stored(tx, actor, eq(changes.id, id), 'update');
  if (!found) throw new Refusal('no_such_change');
  if (found.undoneBy) throw new Refusal('already_undone');
  const others = await othersWork(tx, actor, found);
  const { committed, kept } = await inverted(tx, actor, found, progress);
  const by = committed.changeId ?? found.id;
  await setUndone(tx, actor, found.id, by);
  let { says } = found;
  if (found.undoes) {
    // An undo was undone: the change it had undone stands again, and the redo itself is not a step of its own.
    await setUndone(tx, actor, found.undoes, null);
    await setUndone(tx, actor, by, by);
    const original = await stored(tx, actor, eq(changes.id, found.undoes));
    says = original?.says ?? committed.says;
  }
  if (!committed.changeId) return { ...committed, says: `Nothing was left to undo of “${says}”` };
  return { ...committed, says: SAYS[as].done + says + others + kept };
}

/**
 * Carries the inverse out. A merge is taken back at any later time: what was written since into a field of the merged
 * record stays, and is told.
 */
async function inverted(
  tx: Db,
  actor: Actor,
  { id, change }: Stored,
  progress: Progress | undefined,
): Promise<{ committed: Committed; kept: string }> {
  const how = { undoes: id, progress };
  if (!kindsIn(change).includes('merge'))
    return { committed: await commitWithin(tx, actor, invert(change), how), kept: '' };
  const kept: string[] = [];
  for (let back: Change | null = invert(change); ;) {
    try {
      const goes = back;
      const committed = await tx.transaction((inner) => commitWithin(inner, actor, goes, how));
      return { committed, kept: kept.length ? `; ${kept.join(', ')} stayed as written since` : '' };
    } catch (error) {
      if (!(error instanceof Conflict)) throw error;
      back = yieldTo(back, error);
      if (!back) throw error;
      kept.push(...error.moved.map((m) => m.what));
    }
  }
}

/**
 * What others did since to what the change brought: nothing of theirs goes in silence.
 * @returns words to be added, where their work goes along and comes back along
 * @throws Refusal where it would be out of sight
 */
async function othersWork(tx: Db, actor: Actor, { id, change }: Stored): Promise<string> {
  const made = makes(change);
  let told = '';
  for (const kind of SUBJECT_KINDS) {
    const things = made.filter((m) => m.kind === kind);
    const { called, othersWork: how } = SUBJECTS.all[kind];
    const since = await workSince(tx, actor, id, things);
    if (!since) continue;
    if (how === 'guards')
      throw new Refusal('undo_conflict', `others worked on the ${called} since then. ${since.last}.`);
    told += `; this also undid what others did to ${countSources(since.count)} since (${since.last})`;
  }
  return told;
}

async function setUndone(tx: Db, { workspaceId }: Actor, id: string, by: string | null): Promise<void> {
  await within(tx, workspaceId).update(changes, { undoneBy: by }, eq(changes.id, id));
}

/** What a large change leaves is not known before it has ended, so nothing is undone meanwhile. */
async function refuseWhileOneGoesOn(db: Db, { workspaceId, userId }: Actor): Promise<void> {
  const going = and(
    eq(jobs.madeBy, userId),
    inArray(jobs.kind, ['change', 'empty-bin']),
    inArray(jobs.state, [...GOING]),
  );
  if (await within(db, workspaceId).has(jobs, going)) throw new Refusal('change_goes_on');
}

interface Stored {
  id: string;
  change: Change;
  says: string;
  undoes: string | null;
  undoneBy: string | null;
}

/** The change of this id, or the later one that took it in. */
const named = async (db: Db, actor: Actor, id: string): Promise<Stored | undefined> =>
  (await stored(db, actor, eq(changes.id, id))) ??
  stored(db, actor, sql`${changes.id} > ${id} and ${changes.joined} @> array[${id}::uuid]`);

/** The newest of the changes that satisfy the condition; another member's own is not there. */
async function stored(tx: Db, actor: Actor, where: SQL | undefined, lock?: 'update'): Promise<Stored | undefined> {
  const { id, actorId, change, says, undoes, undoneBy } = changes;
  const fields = { id, actorId, change, says, undoes, undoneBy };
  const seen = and(where, changeVisible(actor, sql`${changes}`));
  const found = await within(tx, actor.workspaceId).first(changes, fields, seen, {
    by: [desc(id)],
    ...(lock && { lock }),
  });
  try {
    return found && { ...found, change: fromJson(found.change, { by: found.actorId }) };
  } catch (error) {
    if (error instanceof NotAChange) throw new Refusal('undo_conflict', 'it was stored in a form not known any more.');
    throw error;
  }
}
