/** What a search found, work by work: folded over the catalogues, with what is here already; and bringing it in. */
import { and, eq } from 'drizzle-orm';
import type { FoundPage, FoundQuery, FoundWork, GatherFound, Started } from '@pandecta/contract';
import { areOneWork, bestOf, matchKeys } from '@pandecta/core/matching';
import { nameInverted, withoutMarkup, yearOf, type SourceRecord } from '@pandecta/core/source';
import type { Db } from '../database/connect.ts';
import { oneOf } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import type { RecordInput } from '../gathering/inputs.ts';
import { startImport } from '../gathering/start.ts';
import type { Actor } from '../access/principal.ts';
import { findMatches, type Matches } from '../intake/here.ts';
import { pathsOf } from '../places/store.ts';
import type { Services } from '../services.ts';
import { findHits, findSearch, type Hit } from './search.ts';
import { hits } from './tables.ts';

interface Folded {
  work: number;
  record: SourceRecord;
  subjects: string[];
  hits: Hit[];
}

/** The works of a search that are asked for, in their order. */
async function works(db: Db, workspaceId: string, search: string, ask: FoundQuery): Promise<Folded[]> {
  const byWork = new Map<number, Hit[]>();
  for (const hit of await findHits(db, workspaceId, search))
    byWork.set(hit.work, [...(byWork.get(hit.work) ?? []), hit]);
  const all = [...byWork].map(([work, list]): Folded => ({
    work,
    record: bestOf(list.map((h) => h.record)),
    subjects: [...new Set(list.flatMap((h) => h.subjects))],
    hits: list,
  }));
  const fresh = ask.fresh ? all.filter((w) => w.hits.some((h) => h.isNew)) : all;
  // Which are here is asked of all only where those are to be left out.
  const here = ask.absent ? await matchesOf(db, workspaceId, fresh) : undefined;
  const kept = here ? fresh.filter((w) => !here.get(String(w.work))?.here.length) : fresh;
  const text = (w: Folded): string =>
    ask.sort === 'author' ? (w.record.author ?? []).map(nameInverted).join('; ') : withoutMarkup(w.record.title ?? '');
  const year = (w: Folded): number => yearOf(w.record.issued) ?? -Infinity;
  switch (ask.sort) {
    case 'title':
    case 'author':
      return kept.sort((a, b) => text(a).localeCompare(text(b), 'en'));
    case 'year':
      return kept.sort((a, b) => year(a) - year(b));
    case '-year':
      return kept.sort((a, b) => year(b) - year(a));
    default:
      // What several catalogues have stands first, then as they came.
      return kept.sort((a, b) => b.hits.length - a.hits.length || a.work - b.work);
  }
}

const matchesOf = (db: Db, workspaceId: string, list: Folded[]): Promise<Map<string, Matches>> =>
  findMatches(
    db,
    workspaceId,
    list.map(({ work, record }) => ({ id: String(work), record, keys: matchKeys(record), files: [] })),
    'records',
  );

async function shown(db: Db, actor: Actor, list: Folded[]): Promise<FoundWork[]> {
  const matches = await matchesOf(db, actor.workspaceId, list);
  const standing = [...matches.values()].flatMap((m) => m.here[0]?.here.collections ?? []);
  const paths = await pathsOf(db, actor, [...new Set(standing)]);
  return list.map((w): FoundWork => {
    const { here, waiting } = matches.get(String(w.work)) ?? { here: [], waiting: [] };
    const best = here[0];
    return {
      id: String(w.work),
      record: w.record,
      in: w.hits.map((h) => ({ catalogue: h.catalogue, accession: h.accession })),
      isNew: w.hits.some((h) => h.isNew),
      hasPdf: w.hits.some((h) => h.pdf !== null),
      // Found anew by another search, it waits all the same.
      gathered: w.hits.some((h) => h.importId !== null) || waiting.some((m) => areOneWork(m.verdict)),
      ...(best && {
        here: {
          id: best.here.id,
          verdict: best.verdict,
          places: best.here.collections.flatMap((c) => paths.get(c)?.[0] ?? []),
        },
      }),
    };
  });
}

/** Where one of the catalogues says the full text is. */
function withPdf(of: Hit[]): { pdf?: string } {
  const pdf = of.find((h) => h.pdf)?.pdf;
  return pdf ? { pdf } : {};
}

const AT_ONCE = 50;

export async function found(db: Db, actor: Actor, search: string, ask: FoundQuery): Promise<FoundPage> {
  const { from = 0, count = AT_ONCE } = ask;
  const { workspaceId } = actor;
  const [told, all] = await Promise.all([findSearch(db, workspaceId, search), works(db, workspaceId, search, ask)]);
  return { search: told, total: all.length, from, rows: await shown(db, actor, all.slice(from, from + count)) };
}

/** Brings works into the intake, with where they were found. */
export async function gatherFound(
  services: Services,
  actor: Actor,
  search: string,
  { works: wanted, destination, ...ask }: GatherFound,
  watch?: string,
): Promise<Started> {
  const { db } = services;
  const { workspaceId } = actor;
  const told = await findSearch(db, workspaceId, search);
  const names = new Map(told.asked.map((a) => [a.id, a.name]));
  const set = wanted && new Set(wanted);
  const chosen = (await works(db, workspaceId, search, ask)).filter((w) => !set || set.has(String(w.work)));
  if (!chosen.length) throw new Refusal('invalid', 'none of what was found is chosen');
  const inputs = chosen.map((w): RecordInput => {
    const [first] = w.hits;
    return {
      name: withoutMarkup(w.record.title ?? 'Untitled'),
      record: w.record,
      subjects: w.subjects,
      found: {
        database: names.get(first!.catalogue) ?? '',
        accession: first!.accession,
        query: told.words,
        ...withPdf(w.hits),
      },
    };
  });
  const where = told.asked.length > 2 ? `${told.asked.length} catalogues` : told.asked.map((a) => a.name).join(' and ');
  const started = await startImport(services, actor, inputs, {
    ...(destination && { destination }),
    way: watch ? 'watch' : 'search',
    title: watch ?? `${where}, “${told.words}”`,
  });
  const ordinals = chosen.flatMap((w) => w.hits.map((h) => h.ordinal));
  await within(db, workspaceId).update(
    hits,
    { importId: started.importId },
    and(eq(hits.searchId, search), oneOf(hits.ordinal, ordinals)),
  );
  return started;
}
