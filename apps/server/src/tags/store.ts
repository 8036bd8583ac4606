import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { TagSuggestion, VocabularyTerm } from '@pandecta/contract';
import type { Term } from '@pandecta/core/changes';
import { cut } from '@pandecta/core/text';
import type { Viewer } from '../access/principal.ts';
import type { Db } from '../database/connect.ts';
import { number, orNull, rows, text, truth } from '../database/read.ts';
import { array, literally, table } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { inBounds, visibleTo } from '../subjects/registry.ts';
import { tags } from './tables.ts';

/** Tags whose name begins, or has a word that begins, with what was typed; the most used first. */
export async function suggestTags(db: Db, viewer: Viewer, begins: string): Promise<TagSuggestion[]> {
  const like = `${literally(begins.toLowerCase())}%`;
  return rows(
    db,
    { id: text(), name: text(), subject: truth, count: number },
    sql`
    select t.id, t.name, t.subject, (select count(*)::int from source_tags st where st.workspace_id = ${viewer.workspaceId} and st.tag_id = t.id and ${inBounds(viewer, sql`st.source_id`)}) as count
    from tags t where t.workspace_id = ${viewer.workspaceId} and ${visibleTo(viewer, 'tag', sql`t`)} and (lower(t.name) like ${like} or lower(t.name) like ${`% ${like}`})
    order by t.subject, lower(t.name) = ${begins.toLowerCase()} desc, 4 desc, lower(t.name) limit 20`,
  );
}

/** A name as a tag bears it: without space around it, and not longer than a tag may be. */
export const tagName = (name: string): string => cut(name.trim(), 200);

/** The ids of tags or subject terms of these names, made where there are none. The keys are lower case. */
export async function ensureTags(
  db: Db,
  workspaceId: string,
  names: string[],
  subject: boolean,
): Promise<Map<string, string>> {
  const unique = new Map(
    names
      .map(tagName)
      .filter(Boolean)
      .map((n) => [n.toLowerCase(), n]),
  );
  const list = [...unique.values()];
  if (!list.length) return new Map();
  await db.execute(sql`insert into tags (workspace_id, id, name, subject)
    select ${workspaceId}::uuid, u.id, u.name, ${subject}
    from ${table('u', { id: ['uuid', list.map(() => uuidv7())], name: ['text', list] })}
    on conflict do nothing`);
  // The database lowers some letters otherwise than JavaScript does: the names themselves lead back.
  const found = await rows(
    db,
    { id: text(), name: text() },
    sql`select t.id, u.name from unnest(${array(list, 'text')}) u(name)
    join tags t on t.workspace_id = ${workspaceId} and t.subject = ${subject} and lower(t.name) = lower(u.name)`,
  );
  return new Map(found.map((f) => [f.name.toLowerCase(), f.id]));
}

/** All tags and subject terms, by their names, with how many sources that are not in the bin bear each. */
export async function findTerms(db: Db, viewer: Viewer): Promise<VocabularyTerm[]> {
  return rows(
    db,
    { id: text(), name: text(), subject: truth, says: text(), heading: text(), broader: orNull(text()), count: number },
    sql`
    select t.id, t.name, t.subject, t.says, t.heading, (select up.id from tags up where up.workspace_id = t.workspace_id and up.id = t.broader and ${visibleTo(viewer, 'tag', sql`up`)}) as broader, coalesce(c.n, 0)::int as count from tags t
    left join (select st.tag_id, count(*) as n from source_tags st
      join source_sort ss on ss.workspace_id = ${viewer.workspaceId} and ss.source_id = st.source_id and ss.presence = 'live'
      where st.workspace_id = ${viewer.workspaceId} and ${inBounds(viewer, sql`st.source_id`)} group by 1) c on c.tag_id = t.id
    where t.workspace_id = ${viewer.workspaceId} and ${visibleTo(viewer, 'tag', sql`t`)} order by t.name collate "pandecta", t.id`,
  );
}

/** The terms by their ids. */
export async function termsOf(db: Db, workspaceId: string): Promise<Map<string, Term>> {
  const { id, name, subject, says, heading, broader } = tags;
  const found = await within(db, workspaceId).all(tags, { id, name, subject, says, heading, broader });
  return new Map(found.map(({ id: of, ...term }) => [of, term]));
}

/** The sources that bear each of these tags, in the order of their ids; a tag nobody bears has none. */
export async function taggedWith(db: Db, workspaceId: string, ids: string[]): Promise<Map<string, string[]>> {
  const found = await rows(
    db,
    { tag: text(), source: text() },
    sql`select tag_id as tag, source_id as source from source_tags
      where workspace_id = ${workspaceId} and tag_id = any(${array(ids, 'uuid')}) order by source_id`,
  );
  const sources = new Map(ids.map((id): [string, string[]] => [id, []]));
  for (const { tag, source } of found) sources.get(tag)?.push(source);
  return sources;
}

/** Whether a term is another or stands below it; ends also where two who wrote at once made a circle. */
export function isUnder(id: string, other: string, broaderOf: (id: string) => string | null | undefined): boolean {
  const met = new Set<string>();
  for (let at: string | null | undefined = id; at && !met.has(at); at = broaderOf(at)) {
    if (at === other) return true;
    met.add(at);
  }
  return false;
}
