/** What checking reads of a workspace: all its records, what was said of pairs, what hangs on a source. */
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Change, Relation } from '@pandecta/core/changes';
import type { SourceRecord } from '@pandecta/core/source';
import type { Db } from '../database/connect.ts';
import { number, one, rows, text, truth } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { sources } from '../sources/tables.ts';
import { relations, settled } from './tables.ts';

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
export async function findIn(db: Db, workspaceId: string, collection: string): Promise<Set<string>> {
  const found = await rows(
    db,
    { id: text() },
    sql`select distinct cs.source_id as id from collection_sources cs
      join collection_ancestors a on a.workspace_id = cs.workspace_id and a.collection_id = cs.collection_id
      where cs.workspace_id = ${workspaceId} and a.ancestor_id = ${collection}`,
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
