/** What checking reads of a workspace: all its records, what was said of pairs, what hangs on a source, what lies loose. */
import { and, eq, inArray, sql, type SQL } from 'drizzle-orm';
import type { LooseQueue } from '@pandecta/contract';
import type { Change, Relation } from '@pandecta/core/changes';
import { withoutMarkup, whoOf, type SourceRecord } from '@pandecta/core/source';
import type { Db } from '../database/connect.ts';
import { json, list, number, one, rows, text, truth } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { sources } from '../sources/tables.ts';
import { relations } from './tables.ts';

/** More are not compared at one go. */
export const MOST_RECORDS = 60_000;

export interface Live {
  id: string;
  record: SourceRecord;
}

export const findLive = (db: Db, workspaceId: string): Promise<Live[]> =>
  within(db, workspaceId).all(sources, { id: sources.id, record: sources.record }, eq(sources.presence, 'live'), {
    by: [sources.id],
    most: MOST_RECORDS,
  });

/** Changes with every write: what was found of the same revision is still true. */
export async function revisionOf(db: Db, workspaceId: string): Promise<number> {
  const found = await one(db, { revision: number }, sql`select revision from workspaces where id = ${workspaceId}`);
  return found?.revision ?? 0;
}

export const findRelations = (db: Db, workspaceId: string): Promise<{ from: string; to: string; as: Relation }[]> =>
  within(db, workspaceId).all(relations, { from: relations.fromId, to: relations.toId, as: relations.as });

/** The records of those that are live, by id. */
export async function findRecords(db: Db, workspaceId: string, ids: string[]): Promise<Map<string, SourceRecord>> {
  const found = await within(db, workspaceId).all(
    sources,
    { id: sources.id, record: sources.record },
    and(inArray(sources.id, ids), eq(sources.presence, 'live')),
  );
  return new Map(found.map((f) => [f.id, f.record]));
}

/** The changes that give one source the tags, places and files of others; what it has already is passed over. */
export async function tiesTo(db: Db, workspaceId: string, others: string[], into: string): Promise<Change[]> {
  const w = sql`${workspaceId}::uuid`;
  const of = array(others, 'uuid');
  const [tags, collections, files] = await Promise.all([
    rows(
      db,
      { id: text(), name: text(), subject: truth },
      sql`select distinct t.id, t.name, t.subject from source_tags st join tags t on t.workspace_id = ${w} and t.id = st.tag_id
        where st.workspace_id = ${w} and st.source_id = any(${of})`,
    ),
    rows(
      db,
      { id: text(), name: text() },
      sql`select distinct c.id, c.name from collection_sources cs join collections c on c.workspace_id = ${w} and c.id = cs.collection_id and c.present
        where cs.workspace_id = ${w} and cs.source_id = any(${of})`,
    ),
    rows(
      db,
      { id: text(), name: text() },
      sql`select distinct f.id, f.name from source_files sf join files f on f.workspace_id = ${w} and f.id = sf.file_id
        where sf.workspace_id = ${w} and sf.source_id = any(${of})`,
    ),
  ]);
  const to = [into];
  return [
    ...tags.map((t): Change => ({
      do: 'tag',
      tag: t.id,
      name: t.name,
      subject: t.subject,
      sources: to,
      present: true,
    })),
    ...collections.map((c): Change => ({ do: 'file', collection: c.id, name: c.name, sources: to, present: true })),
    ...files.map((f): Change => ({ do: 'attach', source: into, file: f.id, name: f.name, present: true })),
  ];
}

/** Sources of a queue that are told at once. */
const SHOWN = 200;

interface Loosely {
  id: string;
  title: string;
  why: string;
  /** Of which sources `s` it is. */
  where?: (w: SQL, userId: string) => SQL;
  /** What is not a source, by its name. */
  names?: (w: SQL) => SQL;
}

const lacks =
  (table: SQL): ((w: SQL) => SQL) =>
  (w) =>
    sql`s.presence = 'live' and not exists (select 1 from ${table} x where x.workspace_id = ${w} and x.source_id = s.id)`;

const LOOSE: Loosely[] = [
  {
    id: 'no-collection',
    title: 'In no collection',
    why: 'What stands nowhere is found by asking alone.',
    where: lacks(sql`collection_sources`),
  },
  {
    id: 'no-tag',
    title: 'Without a tag',
    why: 'Subject terms count: they came with the record.',
    where: lacks(sql`source_tags`),
  },
  {
    id: 'no-file',
    title: 'Without a file',
    why: 'Its words cannot be found, and it cannot be read here.',
    where: lacks(sql`source_files`),
  },
  {
    id: 'unread',
    title: 'To read, for three months',
    why: 'You said you would read them; nothing happened since.',
    where: (w, userId) =>
      sql`s.presence = 'live' and s.added_at < now() - interval '90 days' and exists (select 1 from source_reading r
        where r.workspace_id = ${w} and r.source_id = s.id and r.user_id = ${userId} and r.state = 'to read')`,
  },
  {
    id: 'waiting',
    title: 'In the intake for a week',
    why: 'It is in no list and no bibliography until someone takes it in.',
    where: () => sql`s.presence = 'intake' and s.added_at < now() - interval '7 days'`,
  },
  {
    id: 'thin-collections',
    title: 'Collections with one source or none',
    why: 'They may belong together with another.',
    names: (w) =>
      sql`select c.name from collections c where c.workspace_id = ${w} and c.present and exists (select 1 from placements p where p.workspace_id = ${w} and p.collection_id = c.id and p.present)
        and not exists (select 1 from placements p where p.workspace_id = ${w} and p.parent_id = c.id and p.present)
        and (select count(*) from collection_sources cs join sources s on s.workspace_id = ${w} and s.id = cs.source_id and s.presence = 'live' where cs.workspace_id = ${w} and cs.collection_id = c.id) < 2 order by c.name`,
  },
  {
    id: 'rare-tags',
    title: 'Tags used once',
    why: 'Often they are another tag in other words.',
    names: (w) =>
      sql`select t.name from tags t where t.workspace_id = ${w} and not t.subject
        and (select count(*) from source_tags st join sources s on s.workspace_id = ${w} and s.id = st.source_id and s.presence = 'live' where st.workspace_id = ${w} and st.tag_id = t.id) = 1 order by t.name`,
  },
  {
    id: 'failing-watches',
    title: 'Watches that fail',
    why: 'They bring nothing until someone looks after them.',
    names: (w) => sql`select name from watches where workspace_id = ${w} and failures > 0 order by name`,
  },
];

export async function findLoose(db: Db, workspaceId: string, userId: string): Promise<LooseQueue[]> {
  const w = sql`${workspaceId}::uuid`;
  return Promise.all(
    LOOSE.map(async ({ id, title, why, where, names }): Promise<LooseQueue> => {
      if (names) {
        const found = await one(db, { names: list(text()) }, sql`select array(${names(w)}) as names`);
        return { id, title, why, count: found!.names.length, sources: [], names: found!.names.slice(0, SHOWN) };
      }
      const [counted, found] = await Promise.all([
        one(db, { count: number }, sql`select count(*)::int as count from sources s where s.workspace_id = ${w} and ${where!(w, userId)}`), // prettier-ignore
        rows(
          db,
          { id: text(), record: json<SourceRecord>() },
          sql`select s.id, s.record from sources s where s.workspace_id = ${w} and ${where!(w, userId)} order by s.added_at desc, s.id limit ${SHOWN}`,
        ),
      ]);
      const shown = found.map((s) => ({
        id: s.id,
        title: withoutMarkup(s.record.title ?? 'Untitled'),
        who: whoOf(s.record),
      }));
      return { id, title, why, count: counted!.count, sources: shown, names: [] };
    }),
  );
}
