/** What checking reads of a workspace: all its records, what was said of pairs, what hangs on a source. */
import { and, eq, inArray, sql } from 'drizzle-orm';
import { READING_STATES, type Change, type ReadingState, type Relation } from '@pandecta/core/changes';
import type { FileState, Told } from '@pandecta/contract';
import type { From } from '@pandecta/core/matching';
import type { FileSeen } from '@pandecta/core/proofing';
import { whoOf, withoutMarkup, type SourceRecord } from '@pandecta/core/source';
import type { Db } from '../database/connect.ts';
import { json, number, one, orNull, rows, text, truth } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { within } from '../database/within.ts';
import type { Actor } from '../access/principal.ts';
import { filed } from '../places/placed.ts';
import { seenBy } from '../places/store.ts';
import { sources } from '../records/tables.ts';
import { settled } from './tables.ts';

export interface Live {
  id: string;
  record: SourceRecord;
}

/** What proofing is told beside the records. */
export interface Beside {
  files: FileSeen[];
  /** The records of its versions, as they were said to be. */
  versions: SourceRecord[];
}

/** A page or two are enough to tell of which work a file is. */
const FIRST_PAGES = 2;
const MOST_LETTERS = 4000;

/** What stands beside the records, by the ids of the sources; of one, or of all. */
export async function findBeside(db: Db, workspaceId: string, source?: string): Promise<Map<string, Beside>> {
  const w = sql`${workspaceId}::uuid`;
  const of = source ? sql`and s.id = ${source}` : sql``;
  const [files, versions] = await Promise.all([
    rows(
      db,
      { id: text(), name: text(), state: text<FileState>(), begins: text() },
      sql`select s.id, f.name, f.state, coalesce((select left(string_agg(p.text, E'\n' order by p.number), ${MOST_LETTERS}) from pages p
          where p.workspace_id = ${w} and p.file_id = f.id and p.number <= ${FIRST_PAGES}), '') as begins
        from sources s join source_files sf on sf.workspace_id = ${w} and sf.source_id = s.id join files f on f.workspace_id = ${w} and f.id = sf.file_id
        where s.workspace_id = ${w} and s.presence in ('live', 'intake') ${of} order by s.id, f.id`,
    ),
    rows(
      db,
      { id: text(), record: json<SourceRecord>() },
      sql`select s.id, o.record from relations r
        cross join lateral (values (r.from_id, r.to_id), (r.to_id, r.from_id)) x (one, other)
        join sources s on s.workspace_id = ${w} and s.id = x.one ${of} join sources o on o.workspace_id = ${w} and o.id = x.other and o.presence = 'live'
        where r.workspace_id = ${w} and r."as" = 'version of'`,
    ),
  ]);
  const beside = new Map<string, Beside>();
  const at = (id: string): Beside => {
    const known = beside.get(id) ?? { files: [], versions: [] };
    beside.set(id, known);
    return known;
  };
  for (const { id, name, state, begins } of files)
    at(id).files.push({ name, state: STATES[state] ?? 'other', begins: state === 'text' ? begins : '' });
  for (const { id, record } of versions) at(id).versions.push(record);
  return beside;
}

/** Changes whenever files are read or relations said. */
export async function besideOf(db: Db, workspaceId: string): Promise<string> {
  const w = sql`${workspaceId}::uuid`;
  const found = await one(
    db,
    { at: text() },
    sql`select (select count(*) from relations where workspace_id = ${w}) || ' ' || (select count(*) || ' ' || coalesce(sum(pages), 0) from files where workspace_id = ${w} and state <> 'waiting') as at`,
  );
  return found!.at;
}

const STATES: Partial<Record<FileState, FileSeen['state']>> = {
  text: 'text',
  'image only': 'image only',
  damaged: 'damaged',
};

/** Changes with every write of records: what was found of the same revision is still true. */
export async function revisionOf(db: Db, workspaceId: string): Promise<number> {
  // Where the last write of records is noted no more, each write counts as one.
  const found = await one(
    db,
    { revision: number },
    sql`select coalesce(max(revision) filter (where sorts), min(revision), 0)::int as revision from derivations where workspace_id = ${workspaceId}`,
  );
  return found!.revision;
}

/** What was said of two sources; of one that became part of another since it holds for that. */
export const findRelations = (db: Db, workspaceId: string): Promise<{ from: string; to: string; as: Relation }[]> =>
  rows(
    db,
    { from: text(), to: text(), as: text<Relation>() },
    sql`with recursive part (id, of) as (
        select id, merged_into from sources where workspace_id = ${workspaceId} and merged_into is not null
        union select p.id, s.merged_into from part p join sources s on s.workspace_id = ${workspaceId} and s.id = p.of and s.merged_into is not null),
      whole as (select p.id, p.of from part p join sources s on s.workspace_id = ${workspaceId} and s.id = p.of and s.merged_into is null)
      select distinct coalesce(f.of, r.from_id) as "from", coalesce(t.of, r.to_id) as "to", r."as" from relations r
      left join whole f on f.id = r.from_id left join whole t on t.id = r.to_id
      where r.workspace_id = ${workspaceId} and r."as" in ('version of', 'other than') order by 1, 2, 3`,
  );

/** The pairs among these sources that were decided, by their places. */
export async function findDecided(db: Db, workspaceId: string, ids: string[]): Promise<[number, number][]> {
  const at = new Map(ids.map((id, i) => [id, i]));
  return (await findRelations(db, workspaceId)).flatMap(({ from, to }): [number, number][] => {
    const [a, b] = [at.get(from), at.get(to)];
    return a === undefined || b === undefined ? [] : [[a, b]];
  });
}

/** A source as it is told in a list. */
export const toldOf = (id: string, record: SourceRecord): Told => ({
  id,
  title: withoutMarkup(record.title ?? 'Untitled'),
  who: whoOf(record),
});

/** The records of those that are live, with how their values are known. */
export async function findKnown(db: Db, workspaceId: string, ids: string[]): Promise<Map<string, Live & From>> {
  const { id, record, provenance, addedAt, presence } = sources;
  const found = await within(db, workspaceId).all(
    sources,
    { id, record, provenance, added: addedAt },
    and(inArray(id, ids), eq(presence, 'live')),
  );
  return new Map(
    found.map((f) => [f.id, { id: f.id, record: f.record, provenance: f.provenance as NonNullable<From['provenance']>, added: new Date(f.added).toISOString() }]), // prettier-ignore
  );
}

/** One record, of a source that is live or waits. */
export const findRecord = async (db: Db, workspaceId: string, id: string): Promise<SourceRecord | undefined> =>
  (
    await within(db, workspaceId).first(
      sources,
      { record: sources.record },
      and(eq(sources.id, id), inArray(sources.presence, ['live', 'intake'])),
    )
  )?.record;

/** The sources that stand in a collection, or under it. */
export async function findIn(db: Db, actor: Actor, collection: string): Promise<Set<string>> {
  const found = await rows(
    db,
    { id: text() },
    sql`select distinct cs.source_id as id from collection_sources cs
      join collection_ancestors a on a.workspace_id = cs.workspace_id and a.collection_id = cs.collection_id
      join collections c on c.workspace_id = cs.workspace_id and c.id = cs.collection_id and ${seenBy(actor)}
      join collections k on k.workspace_id = cs.workspace_id and k.id = a.ancestor_id and ${seenBy(actor, sql`k`)}
      where cs.workspace_id = ${actor.workspaceId} and a.ancestor_id = ${collection}`,
  );
  return new Set(found.map((f) => f.id));
}

/** What proofing was told in a workspace. */
export interface SettledHere {
  /** Rules set aside everywhere. */
  rules: Set<string>;
  /** Words that keep their form, in the order of the alphabet. */
  words: string[];
  isAside(finding: { rule: string; source: string }): boolean;
}

export async function findSettled(db: Db, workspaceId: string): Promise<SettledHere> {
  const { what, name, sourceId } = settled;
  const all = await within(db, workspaceId).all(settled, { what, name, source: sourceId }, undefined, { by: [name] });
  const aside = all.filter((s) => s.what === 'aside');
  const rules = new Set(aside.filter((s) => !s.source).map((s) => s.name));
  const one = new Set(aside.map((s) => `${s.source} ${s.name}`));
  return {
    rules,
    words: all.filter((s) => s.what === 'word').map((s) => s.name),
    isAside: ({ rule, source }) => rules.has(rule) || one.has(`${source} ${rule}`),
  };
}

/** The changes that give one source the tags, places and files of others, and each member's own state and star; what it has already is passed over. */
export async function tiesTo(db: Db, workspaceId: string, others: string[], into: string): Promise<Change[]> {
  const w = sql`${workspaceId}::uuid`;
  const of = array(others, 'uuid');
  const tags = await rows(
    db,
    { id: text(), name: text(), subject: truth },
    sql`select distinct t.id, t.name, t.subject from source_tags st join tags t on t.workspace_id = ${w} and t.id = st.tag_id
      where st.workspace_id = ${w} and st.source_id = any(${of})`,
  );
  const collections = await rows(
    db,
    { id: text(), name: text(), owner: orNull(text()) },
    sql`select distinct c.id, c.name, c.owner from collection_sources cs join collections c on c.workspace_id = ${w} and c.id = cs.collection_id and c.present
      where cs.workspace_id = ${w} and cs.source_id = any(${of})`,
  );
  const files = await rows(
    db,
    { id: text(), name: text() },
    sql`select distinct f.id, f.name from source_files sf join files f on f.workspace_id = ${w} and f.id = sf.file_id
      where sf.workspace_id = ${w} and sf.source_id = any(${of})`,
  );
  const states = await rows(
    db,
    { member: text(), state: text<ReadingState>() },
    sql`select r.user_id as member, r.state from source_reading r where r.workspace_id = ${w} and r.source_id = any(${of})
      and not exists (select 1 from source_reading o where o.workspace_id = ${w} and o.user_id = r.user_id and o.source_id = ${into})`,
  );
  const stars = await rows(
    db,
    { member: text() },
    sql`select distinct user_id as member from source_stars where workspace_id = ${w} and source_id = any(${of})`,
  );
  const labels = await rows(
    db,
    { id: text(), name: text() },
    sql`select distinct e.id, e.value->>'name' as name from source_labels l
      join entries e on e.workspace_id = ${w} and e.list = 'label' and e.id = l.label_id
      where l.workspace_id = ${w} and l.source_id = any(${of})`,
  );
  const ratings = await rows(
    db,
    { rating: number },
    sql`select max(r.rating) as rating from source_ratings r where r.workspace_id = ${w} and r.source_id = any(${of})
      and not exists (select 1 from source_ratings o where o.workspace_id = ${w} and o.source_id = ${into}) having count(*) > 0`,
  );
  const reasons = await rows(
    db,
    { reason: text() },
    sql`select min(r.reason) as reason from source_rechecks r where r.workspace_id = ${w} and r.source_id = any(${of})
      and not exists (select 1 from source_rechecks o where o.workspace_id = ${w} and o.source_id = ${into}) having count(*) > 0`,
  );
  const to = [into];
  // Of several states of one member the furthest.
  const furthest = new Map<string, ReadingState>();
  for (const { member, state } of states)
    if (READING_STATES.indexOf(state) >= READING_STATES.indexOf(furthest.get(member) ?? 'to read'))
      furthest.set(member, state);
  return [
    ...tags.map((t): Change => ({
      do: 'tag',
      tag: t.id,
      name: t.name,
      subject: t.subject,
      sources: to,
      present: true,
    })),
    ...collections.map((c) => filed(c, to, true)),
    ...files.map((f): Change => ({ do: 'attach', source: into, file: f.id, name: f.name, present: true })),
    ...[...furthest].map(([member, after]): Change => ({
      do: 'reading',
      member,
      states: { [into]: { before: null, after } },
    })),
    ...labels.map((l): Change => ({ do: 'labelling', label: l.id, name: l.name, sources: to, present: true })),
    ...reasons.map(({ reason }): Change => ({ do: 'recheck', reasons: { [into]: { before: null, after: reason } } })),
    ...ratings.map(({ rating }): Change => ({ do: 'rate', ratings: { [into]: { before: null, after: rating } } })),
    ...stars.map(({ member }): Change => ({ do: 'star', member, sources: to, present: true })),
  ];
}
