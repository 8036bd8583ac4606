/** Searches, and addresses that list works, looked at by themselves: they bring only what was never seen. */
import { and, eq, lt, sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { NewWatch, Watch, WatchList } from '@pandecta/contract';
import { inOneLine } from '@pandecta/core/catalogues';
import type { Db } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { within } from '../database/within.ts';
import { withoutMarkup } from '@pandecta/core/source';
import { Refusal } from '../errors.ts';
import type { Actor } from '../access/principal.ts';
import { notify } from '../news/notify.ts';
import type { Services } from '../services.ts';
import { eachDue } from '../queue/due.ts';
import { findCatalogues, listCatalogues } from '../catalogues/catalogues.ts';
import { gatherFound } from './found.ts';
import { lookAt, refuseAddress } from './listings.ts';
import { findHits, findSearch, startSearch } from './search.ts';
import { watches } from './tables.ts';

/** A watch that fails so often in a row pauses itself. */
const MOST_FAILURES = 5;
const HOUR = 3_600_000;
const LENGTH: Record<Watch['every'], number> = { hour: HOUR, day: 24 * HOUR, week: 168 * HOUR, month: 730 * HOUR };

const COLUMNS = {
  id: watches.id,
  name: watches.name,
  kind: watches.kind,
  address: watches.address,
  mail: watches.mail,
  question: watches.question,
  every: watches.every,
  nextAt: watches.nextAt,
  ranAt: watches.ranAt,
  brought: watches.brought,
  says: watches.says,
  paused: watches.paused,
};

export async function listWatches(db: Db, workspaceId: string): Promise<WatchList> {
  const found = await within(db, workspaceId).all(watches, COLUMNS, sql`${watches.present}`, { by: [watches.id] });
  return { watches: found.map(({ question, ...w }) => ({ ...w, words: w.address ?? inOneLine(question) })) };
}

export async function addWatch(services: Services, actor: Actor, made: NewWatch): Promise<WatchList> {
  const { kind = 'search', address, question = { words: '' }, catalogues = [], ...rest } = made;
  if (kind === 'search') {
    await findCatalogues(services.db, actor.workspaceId, catalogues);
    if (!catalogues.length) throw new Refusal('invalid', 'no catalogue is chosen');
    if (!inOneLine(question)) throw new Refusal('invalid', 'there is nothing to search for');
  } else refuseAddress(address ?? '');
  const what =
    kind === 'search' ? { kind, question, catalogues } : { kind, address: address!, question, catalogues: [] };
  const nextAt = nextRun(made.every, made.name);
  await within(services.db, actor.workspaceId).insert(watches, {
    id: uuidv7(),
    ...rest,
    ...what,
    nextAt,
    madeBy: actor.userId,
  });
  return listWatches(services.db, actor.workspaceId);
}

/** Spread out by a part of the hour that its name gives, so that not all of them ask at once. */
function nextRun(every: Watch['every'], name: string, from = Date.now()): string {
  const spread = [...name].reduce((n, c) => (n * 31 + c.codePointAt(0)!) % HOUR, 7);
  return new Date(from + LENGTH[every] + (every === 'hour' ? 0 : spread)).toISOString();
}

async function alter(
  db: Db,
  workspaceId: string,
  id: string,
  values: Partial<typeof watches.$inferInsert>,
): Promise<WatchList> {
  const done = await within(db, workspaceId)
    .update(watches, values, and(eq(watches.id, id), sql`${watches.present}`))
    .returning({ id: watches.id });
  if (!done.length) throw new Refusal('no_such_watch');
  await notify(db, { workspace: workspaceId, touched: { kinds: { outside: [id] } } });
  return listWatches(db, workspaceId);
}

export const pauseWatch = (db: Db, workspaceId: string, id: string, paused: boolean): Promise<WatchList> =>
  alter(db, workspaceId, id, { paused, failures: 0 });
export const removeWatch = (db: Db, workspaceId: string, id: string): Promise<WatchList> =>
  alter(db, workspaceId, id, { present: false });

/** Searches, and brings what no search had before into the intake, to the watch's destination. */
export async function runWatch(services: Services, workspaceId: string, id: string): Promise<WatchList> {
  const { db } = services;
  const columns = {
    ...COLUMNS,
    catalogues: watches.catalogues,
    destination: watches.destination,
    madeBy: watches.madeBy,
    failures: watches.failures,
    state: watches.state,
  };
  const watch = await within(db, workspaceId).first(watches, columns, and(eq(watches.id, id), sql`${watches.present}`));
  if (!watch) throw new Refusal('no_such_watch');
  const actor = { workspaceId, userId: watch.madeBy };
  const ran = { ranAt: new Date().toISOString(), nextAt: nextRun(watch.every, watch.name) };
  const { search, from } = await look(services, actor, watch);
  const { asked, fresh } = await findSearch(db, workspaceId, search);
  const failed = asked.filter((a) => a.state === 'failed');
  if (failed.length === asked.length)
    return noteFailure(services, workspaceId, id, `${failed[0]!.name}: ${failed[0]!.says ?? 'no answer'}`);
  if (fresh) {
    const destination = watch.destination ? { destination: watch.destination } : {};
    await gatherFound(services, actor, search, { fresh: true, ...destination }, watch.name);
  }
  const unheard = failed.length ? `${failed.map((f) => f.name).join(', ')} did not answer` : '';
  const unsent = fresh && watch.mail ? await tellByMail(services, actor, watch.name, search, fresh) : '';
  const says = [unheard, unsent].filter(Boolean).join('; ');
  return alter(db, workspaceId, id, { ...ran, failures: 0, brought: fresh, says, ...(from && { state: { from } }) });
}

/** Notes that it failed, and puts it off; one that fails too often in a row rests, and its owner is told. */
async function noteFailure(services: Services, workspaceId: string, id: string, why: string): Promise<WatchList> {
  const { db } = services;
  const columns = { ...COLUMNS, madeBy: watches.madeBy, failures: watches.failures };
  const watch = await within(db, workspaceId).first(watches, columns, and(eq(watches.id, id), sql`${watches.present}`));
  if (!watch) throw new Refusal('no_such_watch');
  const failures = watch.failures + 1;
  const paused = failures >= MOST_FAILURES;
  const says = paused ? `Paused after ${failures} failures. ${why}` : why;
  if (paused && watch.mail) await services.mail.tell(watch.madeBy, `${watch.name}: paused`, says);
  const ran = { ranAt: new Date().toISOString(), nextAt: nextRun(watch.every, watch.name) };
  return alter(db, workspaceId, id, { ...ran, failures, paused, says });
}

type Looked = { id: string; state: { from?: string } } & Pick<Watch, 'kind' | 'address' | 'name'> &
  Required<Pick<NewWatch, 'question' | 'catalogues'>>;

/** @returns the search that holds what is there now */
async function look(services: Services, actor: Actor, watch: Looked): Promise<{ search: string; from?: string }> {
  if (watch.kind !== 'search')
    return lookAt(services, actor, { ...watch, kind: watch.kind, address: watch.address!, from: watch.state.from });
  // Those that were removed since are passed over; the others are asked.
  const here = new Set((await listCatalogues(services.db, actor.workspaceId)).catalogues.map((c) => c.id));
  const catalogues = watch.catalogues.filter((c) => here.has(c));
  if (!catalogues.length) throw new Refusal('invalid', 'its catalogues were removed from the workspace');
  const { id, done } = await startSearch(services, actor, { ...watch, catalogues }, watch.id);
  await done;
  return { search: id };
}

/** @returns why it could not be sent, or nothing */
async function tellByMail(
  { db, mail }: Services,
  { workspaceId, userId }: Actor,
  name: string,
  search: string,
  fresh: number,
): Promise<string> {
  const titles = (await findHits(db, workspaceId, search))
    .filter((h) => h.isNew)
    .map((h) => withoutMarkup(h.record.title ?? ''));
  const some = [...new Set(titles)].slice(0, 20).map((t) => `- ${t}`);
  const more = fresh > some.length ? [`and ${fresh - some.length} more`] : [];
  const subject = `${name}: ${fresh === 1 ? 'one new work' : `${fresh} new works`}`;
  return mail.tell(userId, subject, [`They wait in the intake:`, '', ...some, ...more].join('\n'));
}

/** Those that are due, also those that were while no server ran. */
export async function runDueWatches(services: Services): Promise<void> {
  const due = await rows(
    services.db,
    { workspaceId: text(), id: text() },
    sql`select workspace_id as "workspaceId", id from watches where present and not paused and ${lt(watches.nextAt, sql`now()`)} order by next_at limit 50`,
  );
  await eachDue(due, {
    work: ({ workspaceId, id }) => runWatch(services, workspaceId, id),
    failed: ({ workspaceId, id }, why) => noteFailure(services, workspaceId, id, why),
    report: services.report,
  });
}
