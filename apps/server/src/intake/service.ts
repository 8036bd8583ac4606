/** What may be done with what waits, and what a person sees of it before they decide. */
import type {
  AskPage,
  Changed,
  ListedOnes,
  HereAlready,
  IntakeDetail,
  IntakePage,
  IntakeRow,
  IntakeSummary,
  Match,
  Started,
} from '@pandecta/contract';
import { countSources, type Change, type Presence } from '@pandecta/core/changes';
import { ruleOf } from '@pandecta/core/proofing';
import { areOneWork, filledBy } from '@pandecta/core/matching';
import { filledFields, withoutMarkup, type SourceRecord } from '@pandecta/core/source';
import { counted, formatNumber } from '@pandecta/core/wording';
import { answer } from '../changes/commit.ts';
import { commit, commitDecided } from '../changes/service.ts';
import type { Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';
import { cut } from '@pandecta/core/text';
import { fetchPdf } from '../files/fetch-pdf.ts';
import { MARKS_ON } from '../files/marks-on.ts';
import { attached } from '../files/of-source.ts';
import type { RecordInput } from '../gathering/inputs.ts';
import { fileTakenIn, hasFolders } from '../gathering/folders.ts';
import { startImport } from '../gathering/start.ts';
import { Unreachable } from '../fetching/fetch.ts';
import { findKnown } from '../check/store.ts';
import { findMatches, type HereMatch } from './here.ts';
import { edited } from '../records/edited.ts';
import type { Actor, Caller } from '../access/principal.ts';
import { understand } from '../searching/match.ts';
import { ledgerRows } from '../searching/rows.ts';
import { filed } from '../places/placed.ts';
import { page } from '../searching/store.ts';
import type { Services } from '../services.ts';
import { countPresence, findRecords } from '../records/store.ts';
import { findSource } from '../sources/store.ts';
import { findBatches, findCertain, findComplete, findOrigin, findTies, findWaiting, type Waiting } from './store.ts';

const AT_ONCE = 50;

/** A stretch of what waits, or of what was set aside: the newest gathering first, unless it is sorted otherwise. */
export async function intakePage(services: Services, caller: Caller, ask: AskPage): Promise<IntakePage> {
  const { db } = services;
  const { from = 0, count = AT_ONCE, find, ...asked } = ask;
  const q = await understand(db, caller, { ...asked, scope: asked.scope === 'aside' ? 'aside' : 'intake' });
  const { total, ids, at } = await page(services, q, { from, count, ...(find && { find }) });
  const workspaceId = caller.workspace.id;
  const [lines, waiting] = await Promise.all([ledgerRows(db, q, ids), findWaiting(db, workspaceId, ids)]);
  const [here, batches] = await Promise.all([
    findMatches(db, workspaceId, [...waiting.values()]),
    findBatches(db, workspaceId, [...new Set([...waiting.values()].flatMap((x) => x.batch ?? []))]),
  ]);
  const rows = lines.flatMap((line): IntakeRow[] => {
    const one = waiting.get(line.id);
    if (!one?.batch) return [];
    const matches = here.get(one.id);
    const best = matches?.here[0];
    const twin = matches?.waiting.find((m) => areOneWork(m.verdict));
    return [
      {
        ...line,
        batch: one.batch,
        lacks: one.lacks,
        finds: one.finds.flatMap((rule) => (SAID.has(rule) ? [] : (ruleOf(rule)?.title ?? []))),
        lookedUp: one.lookedUp,
        trouble: one.trouble,
        unread: isUnread(one),
        guessed: guessedIn(one),
        ...(twin && { twice: twin.here.cameWith ?? '' }),
        ...(best && {
          here: { id: best.here.id, verdict: best.verdict, places: best.here.collections.length } satisfies HereAlready,
        }),
      },
    ];
  });
  return { total, from, rows, notes: q.notes, batches, ...(at !== undefined && { at }) };
}

/** Rules that find what `lacks` says already. */
const SAID = new Set(['missing-part', 'no-identifier']);

/** A text that came and could not be read: all that is known of it are its words. */
export const isUnread = ({ came, record }: Waiting): boolean =>
  came !== null &&
  record.title === came.replace(/\s+/g, ' ').trim() &&
  Object.keys(record).every((f) => f === 'type' || f === 'title' || f === 'citation-key');

/** A field read with at least this certainty needs no check; a printed reference has it when all its parts were found. */
const SURE = 0.75;

/** The fields that were read with less certainty than that: a person should check them. */
export const guessedIn = ({ record, provenance }: Waiting): string[] =>
  filledFields(record).filter((f) => (provenance[f]?.sure ?? 1) < SURE);

/** Those of what waits that lack nothing, were read surely, are not here and do not wait twice. */
async function completeOf(db: Db, workspaceId: string, ids: string[]): Promise<string[]> {
  const waiting = await findWaiting(db, workspaceId, ids);
  const here = await findMatches(db, workspaceId, [...waiting.values()]);
  return ids.filter((id) => {
    const one = waiting.get(id);
    if (one?.presence !== 'intake' || one.lacks.length || guessedIn(one).length) return false;
    const matches = here.get(id);
    return !matches?.here.length && !matches?.waiting.some((m) => areOneWork(m.verdict));
  });
}

const MOST_SHOWN = 500;

/** Those that are here for certain, each with the source it would be joined to. */
export async function certainOnes({ db }: Services, workspaceId: string): Promise<ListedOnes> {
  const pairs = await findCertain(db, workspaceId);
  const shown = pairs.slice(0, MOST_SHOWN);
  const [waiting, titles] = await Promise.all([
    findWaiting(
      db,
      workspaceId,
      shown.map((p) => p.id),
    ),
    findRecords(
      db,
      workspaceId,
      shown.map((p) => p.to),
    ),
  ]);
  const batches = await findBatches(db, workspaceId, [...new Set([...waiting.values()].flatMap((x) => x.batch ?? []))]);
  const rows = shown.flatMap(({ id, to }) => {
    const one = waiting.get(id);
    if (!one) return [];
    const batch = batches.find((b) => b.id === one.batch)?.title ?? '';
    return [{ id, record: one.record, batch, to: withoutMarkup(titles.get(to)?.title ?? 'Untitled') }];
  });
  return { total: pairs.length, rows };
}

/** The complete ones, as a list from which a person takes out what is not to be taken in. */
export async function completeOnes({ db }: Services, workspaceId: string): Promise<ListedOnes> {
  const ids = await completeOf(db, workspaceId, await findComplete(db, workspaceId));
  const shown = await findWaiting(db, workspaceId, ids.slice(0, MOST_SHOWN));
  const batches = await findBatches(db, workspaceId, [...new Set([...shown.values()].flatMap((x) => x.batch ?? []))]);
  const titles = new Map(batches.map((b) => [b.id, b.title]));
  const rows = ids.flatMap((id) => shown.get(id) ?? []);
  return {
    total: ids.length,
    rows: rows.map(({ id, record, batch }) => ({ id, record, batch: titles.get(batch ?? '') ?? '' })),
  };
}

export async function summary({ db }: Services, workspaceId: string): Promise<IntakeSummary> {
  const [waiting, aside, candidates, certain] = await Promise.all([
    countPresence(db, workspaceId, 'intake'),
    countPresence(db, workspaceId, 'aside'),
    findComplete(db, workspaceId),
    findCertain(db, workspaceId),
  ]);
  return { waiting, aside, certain: certain.length, complete: (await completeOf(db, workspaceId, candidates)).length };
}

export async function detail({ db }: Services, actor: Actor, id: string): Promise<IntakeDetail> {
  const one = await waitingOne(db, actor.workspaceId, id);
  const [source, origin, here, batches] = await Promise.all([
    findSource(db, actor, id),
    findOrigin(db, actor.workspaceId, id),
    findMatches(db, actor.workspaceId, [one]),
    findBatches(db, actor.workspaceId, one.batch ? [one.batch] : []),
  ]);
  const match = ({ here: h, verdict, reasons }: HereMatch): Match => ({
    id: h.id,
    verdict,
    reasons,
    record: h.record,
    addedAt: h.addedAt,
    places: h.collections.length,
    fills: Object.keys(filledBy(h.record, one.record)),
  });
  const matches = here.get(id);
  return {
    source,
    origin,
    lacks: one.lacks,
    guessed: guessedIn(one),
    here: matches?.here.map(match) ?? [],
    waiting: matches?.waiting.map(match) ?? [],
    batch: batches[0]!,
  };
}

export async function waitingOne(db: Db, workspaceId: string, id: string): Promise<Waiting> {
  const one = (await findWaiting(db, workspaceId, [id])).get(id);
  if (!one) throw new Refusal('not_waiting');
  return one;
}

/** @param complete only those of them that are complete */
export async function takeIn(services: Services, actor: Actor, ids: string[], complete = false): Promise<Changed> {
  const sources = complete ? await completeOf(services.db, actor.workspaceId, ids) : ids;
  const presence: Change = { do: 'presence', sources, from: 'intake', to: 'live' };
  const folders = await hasFolders(services.db, actor.workspaceId, sources);
  const committed = folders
    ? await commitDecided(services, actor, sources, async (tx) => ({
        do: 'all',
        says: `Took in ${countSources(sources.length)}, filed by their folders`,
        changes: [presence, ...(await fileTakenIn(tx, actor.workspaceId, sources))],
      }))
    : await commit(services, actor, presence);
  const { change, changeId } = committed;
  const done = change.do === 'all' ? change.changes.find((c) => c.do === 'presence') : change;
  if (!changeId || done?.do !== 'presence') return answer(committed);
  const left = ids.length - done.sources.length;
  const says = `Took in ${countSources(done.sources.length)}${folders ? ', filed by their folders' : ''}`;
  return { changeId, says: left && complete ? `${says}; ${formatNumber(left)} still wait` : says };
}

/** Set aside, or put back from there. */
export async function setAside(services: Services, actor: Actor, ids: string[], aside: boolean): Promise<Changed> {
  const [from, to]: [Presence, Presence] = aside ? ['intake', 'aside'] : ['aside', 'intake'];
  const committed = await commit(services, actor, { do: 'presence', sources: ids, from, to });
  const { change, changeId } = committed;
  if (!changeId || change.do !== 'presence' || !aside) return answer(committed);
  return { changeId, says: `Set ${countSources(change.sources.length)} aside, kept there 30 days` };
}

/**
 * What one here lacks is filled from the one that came; its places, tags and files are added; what stands is not
 * overwritten. The one that came goes, and comes back when this is undone.
 */
export async function join(services: Services, actor: Actor, id: string, to: string): Promise<Changed> {
  const decide = async (tx: Db): Promise<Change> => {
    const one = await waitingOne(tx, actor.workspaceId, id);
    const target = (await findKnown(tx, actor.workspaceId, [to])).get(to);
    if (!target) throw new Refusal('no_such_source');
    const { changes, filled } = await joining(tx, services, actor, one, target);
    const title = withoutMarkup(target.record.title ?? 'an untitled source');
    return { do: 'all', says: `Joined to “${title}”${filledInWords(filled)}`, changes };
  };
  return answer(await commitDecided(services, actor, [id, to], decide));
}

/** Joins each of these that certainly matches one source here to that source, all as one change; the others keep waiting. */
export async function joinCertain(services: Services, actor: Actor, ids: string[]): Promise<Changed> {
  const { workspaceId } = actor;
  const pairs = await findCertain(services.db, workspaceId, ids);
  const on = pairs.flatMap(({ id, to }) => [id, to]);
  const decide = async (tx: Db): Promise<Change> => {
    const [waiting, known] = [
      await findWaiting(tx, workspaceId, ids),
      await findKnown(
        tx,
        workspaceId,
        pairs.map((p) => p.to),
      ),
    ];
    const changes: Change[] = [];
    let [joined, filled] = [0, 0];
    for (const { id, to } of pairs) {
      const [one, target] = [waiting.get(id), known.get(to)];
      if (one?.presence !== 'intake' || !target) continue;
      const done = await joining(tx, services, actor, one, target);
      changes.push(...done.changes);
      joined += 1;
      filled += done.filled;
      // The next that is joined to it fills what is still empty.
      known.set(to, { ...target, record: { ...target.record, ...done.fills } });
    }
    return {
      do: 'all',
      says: `Joined ${formatNumber(joined)} to sources here${filledInWords(filled)}`,
      changes,
    };
  };
  return answer(await commitDecided(services, actor, on, decide));
}

const filledInWords = (filled: number): string => (filled ? `: ${counted(filled, 'field')} filled` : '');

async function joining(
  tx: Db,
  services: Services,
  actor: Actor,
  one: Waiting,
  target: { id: string; record: SourceRecord },
): Promise<{ changes: Change[]; filled: number; fills: object }> {
  const { tags, collections, files } = await findTies(tx, actor.workspaceId, one.id);
  const fills = filledBy(target.record, one.record);
  const sources = [target.id];
  const changes: Change[] = [
    { do: 'presence', sources: [one.id], from: one.presence, to: 'none' },
    edited(target.id, target.record, fills),
    ...tags.map((t): Change => ({ do: 'tag', tag: t.id, name: t.name, subject: t.subject, sources, present: true })),
    ...collections.map((c) => filed(c, sources, true)),
    ...files.map((f): Change => ({ do: 'attach', source: target.id, file: f.id, name: f.name, present: true })),
    ...(await MARKS_ON.all.comeWith(
      tx,
      services,
      actor,
      files.map((f) => ({ source: target.id, files: [f.id] })),
    )),
  ];
  return { changes, filled: Object.keys(fills).length, fills };
}

/** Works of those a page lists are brought in as well. */
export async function gatherListed(services: Services, actor: Actor, id: string, items: number[]): Promise<Started> {
  const one = await waitingOne(services.db, actor.workspaceId, id);
  const origin = await findOrigin(services.db, actor.workspaceId, id);
  const found = origin.address ? { address: origin.address } : {};
  const chosen = items.flatMap((i): RecordInput[] => {
    const record = origin.items[i];
    return record ? [{ name: withoutMarkup(record.title ?? 'Untitled'), record, subjects: [], found }] : [];
  });
  if (!chosen.length) throw new Refusal('invalid', 'none of the works is chosen');
  const title = `${formatNumber(chosen.length)} from ${withoutMarkup(one.record.title ?? origin.address ?? 'a page')}`;
  return startImport(services, actor, chosen, { way: 'typed', title: cut(title, 200) });
}

/** Fetches the full text a page leads to. */
export async function fetchFullText(
  services: Services,
  workspace: { id: string; number: number },
  actor: Actor,
  id: string,
): Promise<Changed> {
  const { db } = services;
  await waitingOne(db, workspace.id, id);
  const { pdf } = await findOrigin(db, workspace.id, id);
  if (!pdf) throw new Refusal('invalid', 'no full text is known of it');
  try {
    const file = await fetchPdf(services, workspace, pdf);
    const came = { source: id, sha256: '', bytes: 0, name: file.name, instead: null };
    return answer(await commitDecided(services, actor, [id], (tx) => attached(tx, services, actor, came, [file.id])));
  } catch (error) {
    if (!(error instanceof Unreachable)) throw error;
    return { changeId: null, says: `The PDF could not be fetched: ${error.message}` };
  }
}
