/**
 * Saved searches that are watched: what a member has not seen in the answer of one since they looked last. What was seen
 * is kept as the numbers of the sources, so that a source that comes to match is new as well, not only one just added.
 */
import { and, eq, sql } from 'drizzle-orm';
import type { Ask, Role, WatchSearch } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import { withoutMarkup, type SourceRecord } from '@pandecta/core/source';
import type { Db } from '../database/connect.ts';
import { json, list, number, orNull, rows, text, type RowOf } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import type { Acting, Actor, Caller } from '../access/principal.ts';
import { eachDue } from '../queue/due.ts';
import { entryOf } from '../lists/store.ts';
import { understand, type Question } from '../searching/match.ts';
import { count, idsIn, narrowedBy } from '../searching/store.ts';
import type { Services } from '../services.ts';
import { seenSet, type SavedValue } from './store.ts';
import { savedWatches } from './tables.ts';

/** How many a member has not seen in the answer of a search they watch. */
export const countUnseen = (services: Services, q: Question, saved: string): Promise<number> =>
  count(services, narrowedBy(q, seenSet(q.scope.workspaceId, q.scope.userId, saved), false), 'later');

/**
 * Watches a search from now on, or no more; and whether by mail.
 * @throws Refusal where there is no such search
 */
export async function watchSearch(
  services: Services,
  caller: Acting,
  saved: string,
  { watched, mail }: WatchSearch,
): Promise<void> {
  const { db } = services;
  const { workspaceId, userId } = caller.actor;
  const value = await searchOf(db, caller.actor, saved);
  const one = and(eq(savedWatches.saved, saved), eq(savedWatches.member, userId));
  const here = within(db, workspaceId);
  const known = await here.first(savedWatches, { mail: savedWatches.mail }, one);
  if (!watched) {
    await here.delete(savedWatches, one);
    return;
  }
  if (known) await here.update(savedWatches, { ...(mail !== undefined && { mail }), says: '', failures: 0 }, one);
  else {
    await here.insert(savedWatches, { saved, member: userId, since: new Date().toISOString(), mail: mail ?? false });
    await see(services, caller, saved, value.ask);
  }
}

/** What is in the answer now counts as seen. */
export async function seeSearch(services: Services, caller: Acting, saved: string): Promise<void> {
  await see(services, caller, saved, (await searchOf(services.db, caller.actor, saved)).ask);
}

async function see(services: Services, caller: Caller & { actor: Actor }, saved: string, ask: Ask): Promise<void> {
  const { workspaceId, userId } = caller.actor;
  const q = await understand(services.db, caller, ask);
  const ids = await idsIn(services, { ...q, byRelevance: false }, 0, Infinity);
  await services.db.execute(sql`update saved_watches set since = now(), seen = array(select number from source_sort
      where workspace_id = ${workspaceId} and source_id = any(${array(ids, 'uuid')})), told = '{}'
    where workspace_id = ${workspaceId} and saved = ${saved} and member = ${userId}`);
}

async function searchOf(db: Db, actor: Actor, id: string): Promise<SavedValue> {
  const found = await entryOf<SavedValue>(db, actor, 'saved', id);
  if (!found) throw new Refusal('not_saved');
  return found;
}

const DUE = {
  workspaceId: text(),
  number: number,
  member: text(),
  bounds: orNull(text()),
  name: text(),
  role: text<Role>(),
  saved: text(),
  told: list(number),
};
type Due = RowOf<typeof DUE>;
/** So many titles are told in a mail. */
const MOST_TITLES = 20;

/** Tells by mail what came into the searches members asked to be told of; of each source once. */
export async function tellOfWatched(services: Services): Promise<void> {
  const due = await rows(
    services.db,
    DUE,
    sql`select sw.workspace_id as "workspaceId", w.number, sw.member, u.name, m.role, m.bounds, sw.saved, sw.told from saved_watches sw
      join workspaces w on w.id = sw.workspace_id join users u on u.id = sw.member
      join members m on m.workspace_id = sw.workspace_id and m.user_id = sw.member where sw.mail`,
  );
  await eachDue(due, {
    work: (one) => tellOf(services, one),
    failed: (one, why) => noteFailure(services.db, one, why),
    report: services.report,
  });
}

/** A question that cannot be asked any more is told to whoever watches it; after some tries no mail of it is sent. */
const MOST_FAILURES = 5;

async function noteFailure(db: Db, { workspaceId, saved, member }: Due, why: string): Promise<void> {
  const { failures, mail } = savedWatches;
  const isOver = sql`${failures} + 1 >= ${MOST_FAILURES}`;
  await within(db, workspaceId).update(
    savedWatches,
    {
      failures: sql`${failures} + 1`,
      mail: sql`${mail} and not ${isOver}`,
      says: sql`case when ${isOver} then ${`No mail of it is sent any more, after ${MOST_FAILURES} failures. ${why}`} else ${why} end`,
    },
    and(eq(savedWatches.saved, saved), eq(savedWatches.member, member)),
  );
}

async function tellOf(services: Services, due: Due): Promise<void> {
  const { db, mail } = services;
  const { workspaceId, member, saved, told } = due;
  const bounds = due.bounds ? { collection: due.bounds } : undefined;
  const value = await entryOf<SavedValue>(db, { workspaceId, userId: member, bounds }, 'saved', saved);
  if (!value) return;
  const workspace = { id: workspaceId, number: due.number, role: due.role, bounds };
  const caller = { workspace, user: { id: member, name: due.name } } as Caller;
  const unseen = narrowedBy(await understand(db, caller, value.ask), seenSet(workspaceId, member, saved), false);
  const ids = await idsIn(services, unseen, 0, Infinity);
  const fresh = await rows(
    db,
    { number, record: json<SourceRecord>() },
    sql`select ss.number, s.record from source_sort ss join sources s on s.workspace_id = ss.workspace_id and s.id = ss.source_id
      where ss.workspace_id = ${workspaceId} and ss.source_id = any(${array(ids, 'uuid')}) and ss.number <> all(${array(told, 'int')})`,
  );
  if (!fresh.length) return;
  const titles = fresh.slice(0, MOST_TITLES).map((f) => `- ${withoutMarkup(f.record.title ?? 'Untitled')}`);
  const more = fresh.length > titles.length ? [`and ${fresh.length - titles.length} more`] : [];
  const letter = [`New in “${value.name}”, since you looked last:`, '', ...titles, ...more].join('\n');
  const says = await mail.tell(member, `${value.name}: ${countSources(fresh.length)} new`, letter);
  const numbers = says ? told : [...told, ...fresh.map((f) => f.number)];
  const which = and(eq(savedWatches.saved, saved), eq(savedWatches.member, member));
  await within(db, workspaceId).update(savedWatches, { says, told: numbers, failures: 0 }, which);
}
