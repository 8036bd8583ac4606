/** What lies loose, in queues that are emptied. */
import { sql, type SQL } from 'drizzle-orm';
import type { LooseQueue } from '@pandecta/contract';
import type { SourceRecord } from '@pandecta/core/source';
import type { Db } from '../database/connect.ts';
import { json, number, one, rows, text } from '../database/read.ts';
import { toldOf } from './store.ts';

/** Sources of a queue that are told at once. */
const SHOWN = 200;

interface Loosely {
  id: string;
  title: string;
  why: string;
  /** Of which sources `s` it is. */
  where?: (w: SQL, userId: string) => SQL;
  /** What is not a source: (id, name). */
  things?: (w: SQL) => SQL;
}

const lacks =
  (table: SQL): ((w: SQL) => SQL) =>
  (w) =>
    sql`s.presence = 'live' and not exists (select 1 from ${table} x where x.workspace_id = ${w} and x.source_id = s.id)`;

const LOOSE: Loosely[] = [
  {
    id: 'no-collection',
    title: 'In no collection',
    why: 'A source in no collection is found only by searching.',
    where: lacks(
      sql`(select cs.workspace_id, cs.source_id from collection_sources cs join collections c on c.workspace_id = cs.workspace_id and c.id = cs.collection_id and c.present and c.owner is null)`,
    ),
  },
  {
    id: 'no-tag',
    title: 'Without a tag',
    why: 'Subject terms that came with the record count as tags.',
    where: lacks(sql`source_tags`),
  },
  {
    id: 'no-file',
    title: 'Without a file',
    why: 'Its text cannot be searched, and it cannot be read here.',
    where: lacks(sql`source_files`),
  },
  {
    id: 'unread',
    title: 'To read, for three months',
    why: 'Marked “to read” three months ago or more, and unchanged since.',
    where: (w, userId) =>
      sql`s.presence = 'live' and s.added_at < now() - interval '90 days' and exists (select 1 from source_reading r
        where r.workspace_id = ${w} and r.source_id = s.id and r.user_id = ${userId} and r.state = 'to read')`,
  },
  {
    id: 'waiting',
    title: 'In the intake for a week',
    why: 'Not in any list or bibliography until someone takes it in.',
    where: () => sql`s.presence = 'intake' and s.added_at < now() - interval '7 days'`,
  },
  {
    id: 'thin-collections',
    title: 'Collections with one source or none',
    why: 'They may belong together with another.',
    things: (w) =>
      sql`select c.id, c.name from collections c where c.workspace_id = ${w} and c.present and c.owner is null and exists (select 1 from placements p where p.workspace_id = ${w} and p.collection_id = c.id and p.present)
        and not exists (select 1 from placements p where p.workspace_id = ${w} and p.parent_id = c.id and p.present)
        and (select count(*) from collection_sources cs join sources s on s.workspace_id = ${w} and s.id = cs.source_id and s.presence = 'live' where cs.workspace_id = ${w} and cs.collection_id = c.id) < 2 order by c.name`,
  },
  {
    id: 'rare-tags',
    title: 'Tags used once',
    why: 'Often the same as another tag, in other words.',
    things: (w) =>
      sql`select t.id, t.name from tags t where t.workspace_id = ${w} and not t.subject
        and (select count(*) from source_tags st join sources s on s.workspace_id = ${w} and s.id = st.source_id and s.presence = 'live' where st.workspace_id = ${w} and st.tag_id = t.id) = 1 order by t.name`,
  },
  {
    id: 'failing-watches',
    title: 'Watches that fail',
    why: 'They bring in nothing until someone fixes them.',
    things: (w) => sql`select id, name from watches where workspace_id = ${w} and failures > 0 order by name`,
  },
];

export async function findLoose(db: Db, workspaceId: string, userId: string): Promise<LooseQueue[]> {
  const w = sql`${workspaceId}::uuid`;
  return Promise.all(
    LOOSE.map(async ({ id, title, why, where, things }): Promise<LooseQueue> => {
      if (things) {
        const found = await rows(db, { id: text(), name: text() }, things(w));
        return { id, title, why, count: found.length, sources: [], things: found.slice(0, SHOWN) };
      }
      const [counted, found] = await Promise.all([
        one(db, { count: number }, sql`select count(*)::int as count from sources s where s.workspace_id = ${w} and ${where!(w, userId)}`), // prettier-ignore
        rows(
          db,
          { id: text(), record: json<SourceRecord>() },
          sql`select s.id, s.record from sources s where s.workspace_id = ${w} and ${where!(w, userId)} order by s.added_at desc, s.id limit ${SHOWN}`,
        ),
      ]);
      const shown = found.map((s) => toldOf(s.id, s.record));
      return { id, title, why, count: counted!.count, sources: shown, things: [] };
    }),
  );
}
