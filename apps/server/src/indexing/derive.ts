/**
 * The one piece of code that derives the tables for searching, narrowing and sorting from the records. Sort keys and
 * facets are derived with the write; text vectors by the indexer, within a second after it.
 */
import { setImmediate as breathe } from 'node:timers/promises';
import { lt, sql, type SQL } from 'drizzle-orm';
import { keptCitationKey } from '@pandecta/core/citation-key';
import { lacksOf } from '@pandecta/core/intake';
import { matchKeys } from '@pandecta/core/matching';
import { proof } from '@pandecta/core/proofing';
import { isOthers, KINDS, nameInverted, withoutMarkup, yearOf, type SourceRecord } from '@pandecta/core/source';
import { cut } from '@pandecta/core/text';
import { FACETS, type Facets } from './facet.ts';
import type { Db } from '../database/connect.ts';
import { json, number, one, orNull, rows, text, truth } from '../database/read.ts';
import { array, table } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { derivations } from './tables.ts';

/** What a write altered, and so what must be derived again. */
export interface Altered {
  /** Sources whose record, subjects, glosses, files or presence changed. */
  records?: string[];
  /** Sources of which all facets must be told again. */
  facets?: string[];
  /** Sources of which those facets alone changed that are derived together: their tags, or their places. */
  some?: { of: Facets; sources: string[] }[];
}

const CHUNK = 2000;

/** Told how many sources of how many are done, after every few. */
export type Progress = (done: number, total: number) => Promise<void>;

export async function derive(tx: Db, workspaceId: string, altered: Altered, progress?: Progress): Promise<void> {
  const records = [...new Set(altered.records ?? [])];
  const facets = [...new Set([...records, ...(altered.facets ?? [])])];
  const some = bySort(altered.some ?? [], new Set(facets));
  const all = [...new Set([...facets, ...some.flatMap(([, ids]) => ids)])];
  if (!all.length) return;
  // Who derives a source waits for whoever else does, and then sees what they wrote: else the later would undo it.
  await tx.execute(
    sql`select 1 from sources where workspace_id = ${workspaceId} and id = any(${array(all, 'uuid')}) order by id for no key update`,
  );
  if (records.length)
    for (const queue of [sql`index_queue`, sql`compare_queue`])
      await tx.execute(sql`insert into ${queue} as q (workspace_id, source_id)
        select ${workspaceId}::uuid, id from unnest(${array(records, 'uuid')}) id order by id
        on conflict (workspace_id, source_id) do update set after = null where q.after is not null`);
  const before = await treeOf(tx, workspaceId);
  // The records lead the facets: each source gets both in one go, and one whose facets alone changed only those.
  for (let i = 0; i < facets.length; i += CHUNK) {
    const part = facets.slice(i, i + CHUNK);
    if (i < records.length) await deriveSort(tx, workspaceId, records.slice(i, i + CHUNK));
    await deriveFacets(tx, workspaceId, part);
    await progress?.(i + part.length, all.length);
  }
  await deriveSome(tx, workspaceId, some, (done) => progress?.(facets.length + done, all.length));
  const numbers = await numbersOf(tx, workspaceId, all);
  const { revision, tree } = await advance(tx, workspaceId);
  // The tree of collections changed meanwhile, by one who could not see what is derived here: now nobody changes it.
  if (tree !== before) {
    for (let i = 0; i < facets.length; i += CHUNK) await deriveFacets(tx, workspaceId, facets.slice(i, i + CHUNK));
    await deriveSome(tx, workspaceId, some);
  }
  await note(tx, workspaceId, revision, numbers, records.length > 0);
}

/** The sources of each sort of facets, without those of which all are told anyway. */
function bySort(some: NonNullable<Altered['some']>, whole: Set<string>): [of: Facets, ids: string[]][] {
  const out = new Map<Facets, Set<string>>();
  for (const { of, sources } of some) {
    const ids = out.get(of) ?? new Set();
    for (const id of sources) if (!whole.has(id)) ids.add(id);
    out.set(of, ids);
  }
  return [...out].map(([of, ids]) => [of, [...ids]]);
}

async function deriveSome(
  tx: Db,
  workspaceId: string,
  some: [of: Facets, ids: string[]][],
  progress?: (done: number) => Promise<void> | undefined,
): Promise<void> {
  let done = 0;
  for (const [of, ids] of some)
    for (let i = 0; i < ids.length; i += CHUNK) {
      const part = ids.slice(i, i + CHUNK);
      await deriveOneSort(tx, workspaceId, of, part);
      await progress?.((done += part.length));
    }
}

async function treeOf(tx: Db, workspaceId: string): Promise<number | undefined> {
  return (await one(tx, { tree: number }, sql`select tree from workspaces where id = ${workspaceId}`))?.tree;
}

/** The numbers sources have in their workspace. */
export async function numbersOf(tx: Db, workspaceId: string, ids: string[]): Promise<number[]> {
  const found = await rows(
    tx,
    { number: number },
    sql`select number from source_sort where workspace_id = ${workspaceId} and source_id = any(${array(ids, 'uuid')})`,
  );
  return found.map((f) => f.number);
}

/** How many revisions are kept for those who hold columns, or sets of words, of an earlier one. */
export const NOTED = 1000;

/**
 * Takes the workspace a revision further: the last of a write, since until the transaction ends no other write of the
 * workspace can do the same. So revisions are seen in their order, and a long import does not hold up a small edit.
 * Locks are taken in one order: sources, queue, derived rows, workspace; but what moves collections takes the
 * workspace first (`places/tree.ts`).
 */
export async function advance(tx: Db, workspaceId: string): Promise<{ revision: number; tree: number }> {
  const step = await one(
    tx,
    { revision: number, tree: number },
    sql`update workspaces set revision = revision + 1 where id = ${workspaceId} returning revision, tree`,
  );
  if (!step) throw new Error(`there is no workspace ${workspaceId}`);
  return step;
}

/**
 * Notes which numbers a revision altered.
 * @param sorts whether sort keys may have changed
 */
export async function note(
  tx: Db,
  workspaceId: string,
  revision: number,
  numbers: number[],
  sorts: boolean,
): Promise<void> {
  const here = within(tx, workspaceId);
  await here.insert(derivations, { revision, numbers, sorts });
  await here.delete(derivations, lt(derivations.revision, revision - NOTED));
}

/** The keys a list is sorted by, and the keys by which a source coming in is known. */
export function sortKeys(record: SourceRecord): {
  title: string;
  author: string;
  container: string;
  kind: string;
  year: number | null;
  people: string[];
} {
  const people = [...(record.author ?? []), ...(record.editor ?? [])];
  return {
    title: cut(
      withoutMarkup(record.title ?? record['title-short'] ?? '')
        .replace(/^(?:the|an?)\s+(?=\S)/i, '')
        .replace(/^[^\p{L}\p{N}]+/u, ''),
      300,
    ),
    author: cut(people.slice(0, 4).map(nameInverted).join('; '), 300),
    container: cut(record['container-title'] ?? record.publisher ?? '', 300),
    kind: KINDS[record.type].name,
    year: yearOf(record.issued) ?? null,
    people: [...new Set(people.filter((n) => !isOthers(n)).map(nameInverted))].slice(0, 50).map((p) => cut(p, 200)),
  };
}

/** Where it was published, by whom, in which language, and what it has: facets as "type=key", as long as an index can hold. */
export function toldByRecord(record: SourceRecord): string[] {
  const values: [type: string, value: string | undefined][] = [
    ['container', record['container-title']],
    ['publisher', record.publisher],
    ['court', record.authority],
    ['jurisdiction', record.jurisdiction],
    ['language', record.language?.toLowerCase()],
    ['has', record.note && 'note'],
    ['has', record.abstract && 'abstract'],
    ['has', (record.DOI ?? record.ISBN ?? record.ISSN ?? record.PMID ?? record.PMCID) && 'identifier'],
  ];
  return values.flatMap(([type, value]) => (value?.trim() ? [`${type}=${cut(value.trim(), 200)}`] : []));
}

/** Its citation key, by which it is found for ever: where it became part of another, that is. */
const keyOf = ({ 'citation-key': key }: SourceRecord): string[] => (key ? [keptCitationKey(key)] : []);

/** The rules of proofing that find something in a record, looked at by itself. */
export const rulesFinding = (record: SourceRecord): string[] => [
  ...new Set(proof({ record, thisYear: new Date().getFullYear() }).map((f) => f.rule)),
];

/** A source new here is given the next number of its workspace; each workspace has a sequence of its own. */
async function deriveSort(tx: Db, workspaceId: string, ids: string[]): Promise<void> {
  const found = await rows(
    tx,
    { id: text(), record: json<SourceRecord>(), number: orNull(number), waits: truth },
    sql`select s.id, s.record, ss.number, s.presence = 'intake' as waits from sources s left join source_sort ss on ss.workspace_id = s.workspace_id and ss.source_id = s.id
      where s.workspace_id = ${workspaceId} and s.id = any(${array(ids, 'uuid')}) order by s.id`,
  );
  const keys = [];
  let since = performance.now();
  for (const f of found) {
    // Of many, or of such as take long, others get their turn between.
    if (performance.now() - since > 20) {
      await breathe();
      since = performance.now();
    }
    keys.push({
      id: f.id,
      number: f.number,
      ...sortKeys(f.record),
      lacks: f.waits ? lacksOf(f.record) : [],
      findings: rulesFinding(f.record),
      told: toldByRecord(f.record),
      keys: [...matchKeys(f.record), ...keyOf(f.record)],
    });
  }
  await tx.execute(sql`
    insert into source_sort (workspace_id, source_id, number, presence, title, author, container, kind, year, added, changed, people, lacks, findings, told)
    select s.workspace_id, s.id, coalesce(k.number, nextval(w.numbers)), s.presence, k.title, k.author, k.container, k.kind, k.year, s.added_at, s.changed_at, k.people, k.lacks, k.findings, k.told
    from jsonb_to_recordset(${JSON.stringify(keys)}::jsonb) as k(id uuid, number int, title text, author text, container text, kind text, year int, people text[], lacks text[], findings text[], told text[])
    join sources s on s.workspace_id = ${workspaceId} and s.id = k.id
    cross join (select ('source_numbers_' || number)::regclass as numbers from workspaces where id = ${workspaceId}) w
    on conflict (workspace_id, source_id) do update set presence = excluded.presence, title = excluded.title,
      author = excluded.author, container = excluded.container, kind = excluded.kind, year = excluded.year,
      added = excluded.added, changed = excluded.changed, people = excluded.people, lacks = excluded.lacks,
      findings = excluded.findings, told = excluded.told`);
  await tx.execute(
    sql`delete from source_keys where workspace_id = ${workspaceId} and source_id = any(${array(ids, 'uuid')}) and key not like 'read:%'`,
  );
  const pairs = keys.flatMap((k) => k.keys.map((key) => [k.id, key] as const));
  await tx.execute(sql`
    insert into source_keys (workspace_id, source_id, key)
    select ${workspaceId}::uuid, u.id, u.key
    from ${table('u', { id: ['uuid', pairs.map((p) => p[0])], key: ['text', pairs.map((p) => p[1])] })}
    on conflict do nothing`);
}

/**
 * Every facet of every named source, set against the dictionary of facets. Each different facet is looked up once by
 * its key, and what the dictionary lacks is added on the way.
 */
async function deriveFacets(tx: Db, workspaceId: string, ids: string[]): Promise<void> {
  await tx.execute(sql`with ${namedPairs(workspaceId, ids, FACETS.all)}
    insert into source_facets (workspace_id, source_id, ids)
    select ${workspaceId}::uuid, p.id, array_agg(distinct n.id) from pairs p join named n on n.type = p.type and n.key = p.key group by p.id
    on conflict (workspace_id, source_id) do update set ids = excluded.ids where source_facets.ids <> excluded.ids`);
}

/** Facets of one sort: the others of the sources stay as they are. */
async function deriveOneSort(tx: Db, workspaceId: string, of: Facets, ids: string[]): Promise<void> {
  const ofSort = of.kinds.flatMap(({ type, own }) => [
    ...(own === true ? [] : [sql`type = ${type}`]),
    ...(own ? [sql`type like ${`${type} %`}`] : []),
  ]);
  await tx.execute(sql`with ${namedPairs(workspaceId, ids, [of])},
    mine as materialized (select id from facets where workspace_id = ${workspaceId} and (${sql.join(ofSort, sql` or `)})),
    told (id, facet) as materialized (
      select o.source_id, k from source_facets o cross join lateral unnest(o.ids) k
        where o.workspace_id = ${workspaceId} and o.source_id = any(${array(ids, 'uuid')}) and k not in (select id from mine)
      union all select p.id, n.id from pairs p join named n on n.type = p.type and n.key = p.key)
    update source_facets sf set ids = x.ids
    from (select id, array_agg(distinct facet) as ids from told group by id) x
    where sf.workspace_id = ${workspaceId} and sf.source_id = x.id and sf.ids <> x.ids`);
}

/** The facets of sources, and those of the dictionary they are: what it lacks is added. */
function namedPairs(workspaceId: string, ids: string[], facets: Facets[]): SQL {
  const w = sql`${workspaceId}::uuid`;
  return sql`${facetPairs(workspaceId, ids, facets)},
    wanted as materialized (select distinct type, key from pairs),
    known as materialized (select f.id, f.type, f.key from wanted join facets f on f.workspace_id = ${w} and f.type = wanted.type and f.key = wanted.key),
    fresh as (insert into facets (workspace_id, type, key)
      select ${w}, type, key from wanted where not exists (select 1 from known k where k.type = wanted.type and k.key = wanted.key)
      order by type, key on conflict (workspace_id, type, key) do update set key = excluded.key returning id, type, key),
    named as materialized (select id, type, key from known union all select id, type, key from fresh)`;
}

/** The facets of sources as (id, type, key). */
function facetPairs(workspaceId: string, ids: string[], facets: Facets[]): SQL {
  const chosen = { workspace: sql`${workspaceId}::uuid`, ids: array(ids, 'uuid') };
  return sql`
    chosen as materialized (select s.id, s.presence, s.record->>'type' as kind from sources s
      where s.workspace_id = ${chosen.workspace} and s.id = any(${chosen.ids})),
    pairs (id, type, key) as materialized (${sql.join(
      facets.map((f) => f.pairs(chosen)),
      sql` union all `,
    )})`;
}
