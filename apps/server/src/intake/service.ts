/** What may be done with what waits, and what a person sees of it before they decide. */
import type {
  AskPage,
  Changed,
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
import { filledBy } from '@pandecta/core/matching';
import { withoutMarkup } from '@pandecta/core/source';
import { answer } from '../changes/commit.ts';
import { commit, commitDecided } from '../changes/service.ts';
import type { Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';
import { cut } from '@pandecta/core/text';
import { fetchPdf } from '../files/fetch-pdf.ts';
import type { RecordInput } from '../gathering/inputs.ts';
import { startImport } from '../gathering/start.ts';
import { Unreachable } from '../outside/fetch.ts';
import { findKnown } from '../check/store.ts';
import { findMatches } from './here.ts';
import { edited } from '../sources/edited.ts';
import type { Actor, Caller } from '../http/authorise.ts';
import { understand } from '../searching/match.ts';
import { ledgerRows } from '../searching/rows.ts';
import { filed } from '../places/placed.ts';
import { page } from '../searching/store.ts';
import type { Services } from '../services.ts';
import { countPresence, findSource } from '../sources/store.ts';
import { findBatches, findComplete, findOrigin, findTies, findWaiting, type Waiting } from './store.ts';

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
    const best = here.get(one.id)?.[0];
    return [
      {
        ...line,
        batch: one.batch,
        lacks: one.lacks,
        finds: one.finds.flatMap((rule) => (SAID.has(rule) ? [] : (ruleOf(rule)?.title ?? []))),
        lookedUp: one.lookedUp,
        unread: isUnread(one),
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
  Object.keys(record).every((f) => f === 'type' || f === 'title');

/** Those of what waits that lack nothing and are not here. */
async function completeOf(db: Db, workspaceId: string, ids: string[]): Promise<string[]> {
  const waiting = await findWaiting(db, workspaceId, ids);
  const here = await findMatches(db, workspaceId, [...waiting.values()]);
  return ids.filter((id) => {
    const one = waiting.get(id);
    return one?.presence === 'intake' && !one.lacks.length && !here.has(id);
  });
}

export async function summary({ db }: Services, workspaceId: string): Promise<IntakeSummary> {
  const [waiting, aside, candidates] = await Promise.all([
    countPresence(db, workspaceId, 'intake'),
    countPresence(db, workspaceId, 'aside'),
    findComplete(db, workspaceId),
  ]);
  return { waiting, aside, complete: (await completeOf(db, workspaceId, candidates)).length };
}

export async function detail({ db }: Services, actor: Actor, id: string): Promise<IntakeDetail> {
  const one = await waitingOne(db, actor.workspaceId, id);
  const [source, origin, here, batches] = await Promise.all([
    findSource(db, actor, id),
    findOrigin(db, actor.workspaceId, id),
    findMatches(db, actor.workspaceId, [one]),
    findBatches(db, actor.workspaceId, one.batch ? [one.batch] : []),
  ]);
  const matches = (here.get(id) ?? []).map(({ here: h, verdict, reasons }): Match => ({
    id: h.id,
    verdict,
    reasons,
    record: h.record,
    addedAt: h.addedAt,
    places: h.collections.length,
    fills: Object.keys(filledBy(h.record, one.record)),
  }));
  return { source, origin, lacks: one.lacks, here: matches, batch: batches[0]! };
}

export async function waitingOne(db: Db, workspaceId: string, id: string): Promise<Waiting> {
  const one = (await findWaiting(db, workspaceId, [id])).get(id);
  if (!one) throw new Refusal('not_waiting');
  return one;
}

/** @param complete only those that lack nothing and are not here */
export async function takeIn(services: Services, actor: Actor, ids: string[], complete = false): Promise<Changed> {
  const sources = complete ? await completeOf(services.db, actor.workspaceId, ids) : ids;
  const committed = await commit(services, actor, { do: 'presence', sources, from: 'intake', to: 'live' });
  const { change, changeId } = committed;
  if (!changeId || change.do !== 'presence') return answer(committed);
  const left = ids.length - change.sources.length;
  const says = `Took in ${countSources(change.sources.length)}`;
  return { changeId, says: left && complete ? `${says}; ${left.toLocaleString('en')} still wait` : says };
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
  return answer(await commitDecided(services, actor, [id, to], (tx) => joining(tx, actor, id, to)));
}

async function joining(tx: Db, actor: Actor, id: string, to: string): Promise<Change> {
  const { workspaceId } = actor;
  const one = await waitingOne(tx, workspaceId, id);
  const target = (await findKnown(tx, workspaceId, [to])).get(to);
  if (!target) throw new Refusal('no_such_source');
  const { tags, collections, files } = await findTies(tx, workspaceId, id);
  const fills = filledBy(target.record, one.record);
  const title = withoutMarkup(target.record.title ?? 'an untitled source');
  const sources = [to];
  const changes: Change[] = [
    { do: 'presence', sources: [id], from: one.presence, to: 'none' },
    edited(to, target.record, fills),
    ...tags.map((t): Change => ({ do: 'tag', tag: t.id, name: t.name, subject: t.subject, sources, present: true })),
    ...collections.map((c) => filed(c, sources, true)),
    ...files.map((f): Change => ({ do: 'attach', source: to, file: f.id, name: f.name, present: true })),
  ];
  const filled = Object.keys(fills).length;
  const says = `Joined to “${title}”${filled ? `: ${filled === 1 ? '1 field' : `${filled} fields`} filled` : ''}`;
  return { do: 'all', says, changes };
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
  const title = `${chosen.length.toLocaleString('en')} from ${withoutMarkup(one.record.title ?? origin.address ?? 'a page')}`;
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
    const change: Change = { do: 'attach', source: id, file: file.id, name: file.name, present: true };
    return answer(await commit(services, actor, change));
  } catch (error) {
    if (!(error instanceof Unreachable)) throw error;
    return { changeId: null, says: `The PDF could not be fetched: ${error.message}` };
  }
}
