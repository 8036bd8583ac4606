/** Searching outside: several catalogues at once, each answer there as it comes, all of it in the log. */
import { eq, sql, type SQL } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Catalogue, NewSearch, Search, SearchFlow } from '@pandecta/contract';
import { inOneLine, PROTOCOLS, type OutsideEntry, type OutsideQuestion } from '@pandecta/core/catalogues';
import type { SourceRecord } from '@pandecta/core/source';
import { transact, type Db } from '../database/connect.ts';
import { json, number, one, orNull, rows, text, type RowOf } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { nameOfActor } from '../access/people.ts';
import type { Actor } from '../access/principal.ts';
import { notify } from '../news/notify.ts';
import type { Services } from '../services.ts';
import { ask, findCatalogues, noteError } from '../catalogues/catalogues.ts';
import { hits, searches, type Asked } from './tables.ts';

/** Works of one search; who wants more asks something narrower. */
export const MOST_HITS = 5000;

export async function startSearch(
  services: Services,
  actor: Actor,
  { question, catalogues }: NewSearch,
  watchId: string | null = null,
): Promise<{ id: string; done: Promise<void> }> {
  if (!inOneLine(question)) throw new Refusal('invalid', 'there is nothing to search for');
  const chosen = await findCatalogues(services.db, actor.workspaceId, catalogues);
  if (!chosen.length) throw new Refusal('invalid', 'no catalogue is chosen');
  const id = await enter(services.db, actor, question, chosen, watchId);
  const done = Promise.all(chosen.map((c) => askOne(services, actor.workspaceId, id, c, question, 0))).then(
    () => undefined,
  );
  return { id, done };
}

/** Notes a search in the log, with those that are to be asked. */
export async function enter(
  db: Db,
  { workspaceId, userId }: Actor,
  question: OutsideQuestion,
  of: { id: string; name: string }[],
  watchId: string | null,
): Promise<string> {
  const id = uuidv7();
  const asked = of.map((c): Asked => ({ id: c.id, name: c.name, state: 'asking', total: 0, fetched: 0 }));
  const row = { id, question, asked, madeBy: userId, ...(watchId && { watchId }) };
  await within(db, workspaceId).insert(searches, row);
  return id;
}

/** The next stretch of each catalogue that has more. */
export async function more(services: Services, workspaceId: string, id: string): Promise<Search> {
  const search = await findSearch(services.db, workspaceId, id);
  const left = search.asked.filter((a) => a.state !== 'asking' && a.fetched < a.total);
  const chosen = await findCatalogues(
    services.db,
    workspaceId,
    left.map((a) => a.id),
  );
  await Promise.all(
    chosen.map((c) => askOne(services, workspaceId, id, c, search.question, left.find((a) => a.id === c.id)!.fetched)),
  );
  return findSearch(services.db, workspaceId, id);
}

/** One that is dead, or answers rubbish, holds up no other: it is told of itself. */
async function askOne(
  services: Services,
  workspaceId: string,
  search: string,
  catalogue: Catalogue,
  question: OutsideQuestion,
  from: number,
): Promise<void> {
  const begun = performance.now();
  const now = (): number => Math.round(performance.now() - begun);
  try {
    const answer = await ask(services, catalogue, question, from, PROTOCOLS[catalogue.protocol].atOnce);
    await keep(services, workspaceId, search, catalogue, answer.entries, {
      state: answer.refused ? 'failed' : 'done',
      total: answer.total,
      fetched: from + answer.entries.length,
      ms: now(),
      ...(answer.refused && { says: answer.refused }),
    });
  } catch (error) {
    const says = (error as Error).message;
    await noteError(services.db, workspaceId, catalogue.id, says);
    await keep(services, workspaceId, search, catalogue, [], { state: 'failed', says, ms: now() });
  }
}

/** Writes what came, folded with what is there; one catalogue after another, so that a work is folded once. */
export async function keep(
  { db, workers }: Pick<Services, 'db' | 'workers'>,
  workspaceId: string,
  search: string,
  catalogue: { id: string },
  entries: OutsideEntry[],
  state: Partial<Asked>,
): Promise<void> {
  await transact(db, async (tx) => {
    const here = within(tx, workspaceId);
    const columns = { asked: searches.asked, watch: searches.watchId };
    const row = await here.first(searches, columns, eq(searches.id, search), { lock: 'update' });
    if (!row) return;
    const before = await here.all(hits, { record: hits.record, work: hits.work }, eq(hits.searchId, search));
    const known = await seenBefore(
      tx,
      workspaceId,
      catalogue.id,
      entries.map((e) => e.accession),
    );
    // Of what a watch finds again and again only what is new is kept.
    const kept = (row.watch ? entries.filter((e) => !known.has(e.accession)) : entries).slice(
      0,
      Math.max(0, MOST_HITS - before.length),
    );
    const works = kept.length ? await workers.run('fold', { before, records: kept.map((e) => e.record) }) : [];
    const fresh = kept.map((e, i) => ({
      searchId: search,
      ordinal: before.length + i,
      catalogueId: catalogue.id,
      accession: e.accession,
      record: e.record,
      subjects: e.subjects,
      work: works[i]!,
      pdf: e.pdf ?? null,
      isNew: !known.has(e.accession),
    }));
    if (fresh.length) await here.insert(hits, ...fresh);
    const asked = row.asked.map((a) => (a.id === catalogue.id ? { ...a, ...state } : a));
    await here.update(searches, { asked }, eq(searches.id, search));
    await notify(tx, { workspace: workspaceId, touched: { kinds: { outside: [search] } } });
  });
}

async function seenBefore(tx: Db, workspaceId: string, catalogue: string, accessions: string[]): Promise<Set<string>> {
  const found = await rows(
    tx,
    { accession: text() },
    sql`select distinct accession from outside_hits where workspace_id = ${workspaceId} and catalogue_id = ${catalogue}
      and accession = any(${array(accessions, 'text')})`,
  );
  return new Set(found.map((f) => f.accession));
}

/**
 * What records that were gathered became: by the gathering they went into and their number in the catalogue. A gathering that
 * was taken back brought nothing.
 */
const gatheredOf = (workspaceId: string): SQL => sql`(select t.import_id, o.found->>'accession' as accession, t.presence
  from sources t join source_origins o on o.workspace_id = ${workspaceId} and o.source_id = t.id
  join imports i on i.workspace_id = ${workspaceId} and i.id = t.import_id
  left join changes c on c.workspace_id = ${workspaceId} and c.id = i.change_id
  where t.workspace_id = ${workspaceId} and c.undone_by is null
    and t.import_id in (select import_id from outside_hits where workspace_id = ${workspaceId}))`;

const SEARCH = {
  id: text(),
  question: json<OutsideQuestion>(),
  why: text(),
  asked: json<Asked[]>(),
  at: text(),
  by: text(),
  works: number,
  fresh: number,
  gathered: number,
  taken: number,
  watch: orNull(text()),
};
const select = (
  workspaceId: string,
) => sql`select s.id, s.question, s.why, s.asked, s.made_at as at, ${nameOfActor} as by, s.watch_id as watch,
  (select count(distinct work)::int from outside_hits h where h.workspace_id = ${workspaceId} and h.search_id = s.id) as works,
  (select count(distinct work)::int from outside_hits h where h.workspace_id = ${workspaceId} and h.search_id = s.id and h.is_new) as fresh,
  (select count(distinct work)::int from outside_hits h where h.workspace_id = ${workspaceId} and h.search_id = s.id and h.import_id is not null) as gathered,
  coalesce(g.taken, 0) as taken
  from outside_searches s left join users u on u.id = s.made_by
  left join (select h.search_id, count(distinct h.work)::int as taken
    from outside_hits h join ${gatheredOf(workspaceId)} x on x.import_id = h.import_id and x.accession = h.accession
    where h.workspace_id = ${workspaceId} and x.presence = 'live' group by h.search_id) g on g.search_id = s.id
  where s.workspace_id = ${workspaceId}`;

/** A server that died over a search leaves catalogues it was asking: they are told to have failed. */
const OVER_MS = 60_000;

function told({ asked, question, ...rest }: RowOf<typeof SEARCH>): Search {
  const over = Date.now() - Date.parse(rest.at) > OVER_MS;
  const settled = asked.map((a): Asked =>
    a.state === 'asking' && over ? { ...a, state: 'failed', says: 'The search was broken off' } : a,
  );
  return {
    ...rest,
    question,
    asked: settled,
    words: inOneLine(question),
    found: settled.reduce((n, a) => n + a.total, 0),
  };
}

export async function findSearch(db: Db, workspaceId: string, id: string): Promise<Search> {
  const found = await one(db, SEARCH, sql`${select(workspaceId)} and s.id = ${id}`);
  if (!found) throw new Refusal('no_such_search');
  return told(found);
}

/**
 * What became of what the searches found, all of them where none is named. What they found is read by the worker alone:
 * there may be hundreds of thousands of records, and on the server's thread they are only handed on.
 */
export async function flow(
  { db, workers }: Pick<Services, 'db' | 'workers'>,
  workspaceId: string,
  chosen?: string[],
): Promise<SearchFlow> {
  const only = chosen ? sql`and h.search_id = any(${array(chosen, 'uuid')})` : sql``;
  const found = await rows(
    db,
    { search: text(), hits: text() },
    sql`with gathered as materialized ${gatheredOf(workspaceId)},
    named as materialized (
      select s.id as search, a->>'id' as catalogue, a->>'name' as name
      from outside_searches s, jsonb_array_elements(s.asked) a where s.workspace_id = ${workspaceId}
    )
    select h.search_id as search,
      json_agg(json_build_array(coalesce(n.name, ''), h.accession, h.work, x.presence) order by h.ordinal)::text as hits
    from outside_hits h
    left join named n on n.search = h.search_id and n.catalogue = h.catalogue_id::text
    left join gathered x on x.import_id = h.import_id and x.accession = h.accession
    where h.workspace_id = ${workspaceId} ${only} group by h.search_id order by h.search_id`,
  );
  const said = chosen ? sql`and s.id = any(${array(chosen, 'uuid')})` : sql``;
  // What a watch finds again and again counts once.
  const counted = await one(
    db,
    { matched: number },
    sql`select coalesce(sum(most), 0)::int as matched from (
      select max((a->>'total')::int) as most from outside_searches s, jsonb_array_elements(s.asked) a
      where s.workspace_id = ${workspaceId} ${said} group by coalesce(s.watch_id, s.id), a->>'id') x`,
  );
  return workers.run('flow', { matched: counted!.matched, found });
}

const MOST_LOGGED = 200;

export async function searchLog(db: Db, workspaceId: string): Promise<Search[]> {
  return (await rows(db, SEARCH, sql`${select(workspaceId)} order by s.id desc limit ${MOST_LOGGED}`)).map(told);
}

export async function describe(db: Db, workspaceId: string, id: string, why: string): Promise<Search> {
  await within(db, workspaceId).update(searches, { why }, eq(searches.id, id));
  await notify(db, { workspace: workspaceId, touched: { kinds: { outside: [id] } } });
  return findSearch(db, workspaceId, id);
}

export interface Hit {
  ordinal: number;
  catalogue: string;
  accession: string;
  record: SourceRecord;
  subjects: string[];
  work: number;
  pdf: string | null;
  isNew: boolean;
  importId: string | null;
}

export const findHits = (db: Db, workspaceId: string, search: string): Promise<Hit[]> =>
  within(db, workspaceId).all(
    hits,
    {
      ordinal: hits.ordinal,
      catalogue: hits.catalogueId,
      accession: hits.accession,
      record: hits.record,
      subjects: hits.subjects,
      work: hits.work,
      pdf: hits.pdf,
      isNew: hits.isNew,
      importId: hits.importId,
    },
    eq(hits.searchId, search),
    { by: [hits.ordinal] },
  );
