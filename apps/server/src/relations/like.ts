/** More like this: sources that share rare words of their records, people or references with one. */
import { sql, type SQL } from 'drizzle-orm';
import type { LikeReply } from '@pandecta/contract';
import { mostAlike } from '@pandecta/core/narrowing';
import { withoutMarkup, type SourceRecord } from '@pandecta/core/source';
import { isFunctionWord, tokens } from '@pandecta/core/words';
import type { Db } from '../database/connect.ts';
import { json, list, number, one, rows, text } from '../database/read.ts';
import { array, table } from '../database/sql.ts';
import { Refusal } from '../errors.ts';
import type { Acting } from '../access/principal.ts';
import { prefixOf, restPrefix } from '../database/lexemes.ts';
import { partsOf } from '../database/merged.ts';
import { findRecords } from '../records/store.ts';
import { visibleIds } from '../subjects/visible.ts';
import { related } from './service.ts';

const MOST = 10;
/** Words are looked at in the order they are written, the title first: so many, and of them the rarest. */
const MOST_WORDS = 60;
const RAREST = 14;
const SHORTEST = 4;
/** What more sources have than these, or than one in so many, makes none like another. */
const COMMON = 2000;
const COMMON_OF = 12;
const MOST_PEOPLE = 12;
const IN_TITLE = 1.6;
const REFERENCE = 1.5;

interface Term {
  stem: string;
  weight: number;
}

/** @throws Refusal where there is no such source */
export async function like(db: Db, { workspace, actor }: Acting, source: string): Promise<LikeReply> {
  const { id: workspaceId, number: lead } = workspace;
  const of = await one(
    db,
    { record: json<SourceRecord>(), subjects: list(text()), people: list(text()), all: number },
    sql`select s.record, ss.people,
        array(select t.name from source_tags st join tags t on t.workspace_id = st.workspace_id and t.id = st.tag_id
          where st.workspace_id = ${workspaceId} and st.source_id = s.id) as subjects,
        (select count(*)::int from source_sort a where a.workspace_id = ${workspaceId} and a.presence = 'live') as "all"
      from sources s join source_sort ss on ss.workspace_id = s.workspace_id and ss.source_id = s.id
      where s.workspace_id = ${workspaceId} and s.id = ${source}`,
  );
  if (!of) throw new Refusal('no_such_source');
  const most = Math.max(5, Math.min(COMMON, Math.ceil(of.all / COMMON_OF)));
  const terms = termsOf(of.record, of.subjects);
  const [words, people, references] = await Promise.all([
    wordsShared(db, workspaceId, lead, source, terms, most),
    peopleShared(db, workspaceId, source, of.people.slice(0, MOST_PEOPLE), most),
    referencesShared(db, workspaceId, source),
  ]);
  const shared = [...words, ...people, ...references];
  if (actor.bounds) {
    const others = [...new Set(shared.flatMap((s) => s.has))];
    const seen = new Set(await visibleIds(db, actor, 'source', others));
    for (const one of shared) one.has = one.has.filter((id) => seen.has(id));
  }
  const best = mostAlike(shared, of.all, MOST);
  const records = await findRecords(
    db,
    workspaceId,
    best.map((b) => b.id),
  );
  return {
    like: best.flatMap(({ id, by }) => {
      const record = records.get(id);
      if (!record) return [];
      const written = spelt(record);
      return {
        ...related(id, record),
        words: by.filter((i) => i < words.length).map((i) => written.get(words[i]!.name) ?? words[i]!.name),
        people: by.flatMap((i) => people[i - words.length]?.name ?? []),
        references: by.filter((i) => i >= words.length + people.length).length,
      };
    }),
  };
}

/** The words a record is told by, each once. */
function termsOf(record: SourceRecord, subjects: string[]): Term[] {
  const out = new Map<string, Term>();
  const add = (said: string | undefined, weight: number): void => {
    for (const { stem } of tokens(withoutMarkup(said ?? '')))
      if (stem.length >= SHORTEST && !/\d/.test(stem) && !isFunctionWord(stem) && !out.has(stem))
        out.set(stem, { stem, weight });
  };
  add(record.title, IN_TITLE);
  for (const subject of subjects) add(subject, 1);
  add(record.abstract, 1);
  return [...out.values()].slice(0, MOST_WORDS);
}

/** How a record writes its words, by their stems. */
function spelt(record: SourceRecord): Map<string, string> {
  const out = new Map<string, string>();
  for (const said of [record.title, record.abstract]) {
    const plain = withoutMarkup(said ?? '');
    for (const { stem, start, end } of tokens(plain))
      if (!out.has(stem)) out.set(stem, plain.slice(start, end).toLowerCase());
  }
  return out;
}

interface Found {
  name: string;
  count: number;
  weight: number;
  has: string[];
}

/** The rarest words of the source that others have in title, abstract, terms or other fields; and who has them. */
async function wordsShared(
  db: Db,
  workspaceId: string,
  lead: number,
  source: string,
  terms: Term[],
  most: number,
): Promise<Found[]> {
  const query = ({ stem }: Term): string =>
    [prefixOf(lead, 'title'), prefixOf(lead, 'abstract'), restPrefix(lead)]
      .map((prefix) => `'${`${prefix}${stem}`.replaceAll("'", "''")}'`)
      .join(' | ');
  if (!terms.length) return [];
  const counted = await rows(
    db,
    { place: number, count: number },
    sql`select t.place::int, c.n as count from ${table('t', { place: ['int', terms.map((_, i) => i)], q: ['text', terms.map(query)] })}
      cross join lateral (select count(*)::int as n from (select 1 from source_text st
        where st.workspace_id = ${workspaceId} and st.fields @@ t.q::tsquery limit ${most + 1}) x) c
      where c.n between 2 and ${most} order by c.n, t.place`,
  );
  const rare = counted.slice(0, RAREST).map(({ place, count }) => ({ ...terms[place]!, count }));
  if (!rare.length) return [];
  const found = await rows(
    db,
    { place: number, has: list(text()) },
    sql`select t.place::int, array_agg(st.source_id::text) as has
      from ${table('t', { place: ['int', rare.map((_, i) => i)], q: ['text', rare.map(query)] })}
      join source_text st on st.workspace_id = ${workspaceId} and st.fields @@ t.q::tsquery
      join source_sort ss on ss.workspace_id = st.workspace_id and ss.source_id = st.source_id and ss.presence = 'live'
      where st.source_id <> ${source} group by 1`,
  );
  const by = new Map(found.map((f) => [f.place, f.has]));
  return rare.map(({ stem, weight, count }, i) => ({ name: stem, count, weight, has: by.get(i) ?? [] }));
}

async function peopleShared(
  db: Db,
  workspaceId: string,
  source: string,
  people: string[],
  most: number,
): Promise<Found[]> {
  if (!people.length) return [];
  const found = await rows(
    db,
    { name: text(), has: list(text()) },
    sql`select p as name, array_agg(ss.source_id::text) as has from source_sort ss, unnest(ss.people) p
      where ss.workspace_id = ${workspaceId} and ss.presence = 'live' and ss.source_id <> ${source}
        and ss.people && ${array(people, 'text')} and p = any(${array(people, 'text')})
      group by 1`,
  );
  return found
    .filter((f) => f.has.length <= most)
    .map(({ name, has }) => ({ name, count: has.length + 1, weight: 1, has }));
}

/** The sources it cites, and that cite it, with what else does the same. */
async function referencesShared(db: Db, workspaceId: string, source: string): Promise<Found[]> {
  const w = sql`${workspaceId}::uuid`;
  const beside = (own: SQL, other: SQL): SQL =>
    sql`select r.${other} as name, array_agg(distinct x.${own}::text) as has from relations r
      join relations x on x.workspace_id = ${w} and x.${other} = r.${other} and x."as" = 'cites'
      join source_sort ss on ss.workspace_id = ${w} and ss.source_id = x.${own} and ss.presence = 'live'
      where r.workspace_id = ${w} and r."as" = 'cites' and r.${own} in (select id from parts) and x.${own} not in (select id from parts) group by 1`;
  const found = await rows(
    db,
    { name: text(), has: list(text()) },
    sql`${partsOf(w, sql`select ${source}::uuid`)} ${beside(sql`from_id`, sql`to_id`)} union all ${beside(sql`to_id`, sql`from_id`)}`,
  );
  return found.map(({ name, has }) => ({ name, count: has.length + 1, weight: REFERENCE, has }));
}
