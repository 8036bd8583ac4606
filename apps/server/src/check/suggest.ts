/** Where a source may belong, and which tags may fit: from the sources it is like, with the reason. */
import { sql } from 'drizzle-orm';
import type { Suggestions } from '@pandecta/contract';
import type { Db } from '../database/connect.ts';
import { list, rows, text, truth } from '../database/read.ts';
import { array } from '../database/sql.ts';

/** Of more like sources nothing else is learnt. */
const MOST_LIKE = 60;
const OFFERED = 4;
/** What one thing in common says. */
const WEIGHT = { person: 3, term: 2, container: 1.5 };
/** Less than this much in common is chance. */
const LEAST = 2;

interface Like {
  people: string[];
  terms: string[];
  container: boolean;
  collections: string[];
  tags: string[];
}

export async function suggestions(db: Db, workspaceId: string, source: string): Promise<Suggestions> {
  const like = await findLike(db, workspaceId, source);
  const names = await rows(
    db,
    { id: text(), name: text() },
    sql`select id, name from collections where workspace_id = ${workspaceId} and present and owner is null and id = any(${array([...new Set(like.flatMap((l) => l.collections))], 'uuid')})`,
  );
  const nameOf = new Map(names.map((n) => [n.id, n.name]));
  return {
    collections: ranked(like, (l) => l.collections.filter((c) => nameOf.has(c))).map(({ key, reason }) => ({ id: key, name: nameOf.get(key)!, reason })), // prettier-ignore
    tags: ranked(like, (l) => l.tags).map(({ key, reason }) => ({ id: null, name: key, reason })),
  };
}

/** Live sources that share people, subject terms, tags or the journal with it, and do not stand where it stands. */
const findLike = (db: Db, workspaceId: string, source: string): Promise<Like[]> => {
  const w = sql`${workspaceId}::uuid`;
  return rows(
    db,
    { people: list(text()), terms: list(text()), container: truth, collections: list(text()), tags: list(text()) },
    sql`with own as (select ss.people, nullif(lower(ss.container), '') as container,
        array(select tag_id from source_tags t where t.workspace_id = ${w} and t.source_id = ${source}) as terms,
        array(select collection_id from collection_sources c where c.workspace_id = ${w} and c.source_id = ${source}) as places
        from source_sort ss where ss.workspace_id = ${w} and ss.source_id = ${source}),
      sharing as (select t.source_id, array_agg(g.name order by g.name) as terms from source_tags t join tags g on g.workspace_id = ${w} and g.id = t.tag_id, own
        where t.workspace_id = ${w} and t.tag_id = any(own.terms) and t.source_id <> ${source} group by t.source_id),
      alike as (select ss.source_id, array(select p from unnest(ss.people) p where p = any(own.people)) as people,
          coalesce(sh.terms, '{}') as terms, coalesce(lower(ss.container) = own.container, false) as container
        from source_sort ss cross join own left join sharing sh on sh.source_id = ss.source_id
        where ss.workspace_id = ${w} and ss.presence = 'live' and ss.source_id <> ${source}
          and (ss.people && own.people or sh.source_id is not null or lower(ss.container) = own.container))
      select a.people, a.terms, a.container,
        array(select c.collection_id::text from collection_sources c, own where c.workspace_id = ${w} and c.source_id = a.source_id and c.collection_id <> all(own.places)) as collections,
        array(select g.name from source_tags t join tags g on g.workspace_id = ${w} and g.id = t.tag_id, own
          where t.workspace_id = ${w} and t.source_id = a.source_id and not g.subject and g.id <> all(own.terms)) as tags
      from alike a order by cardinality(a.people) * 3 + cardinality(a.terms) * 2 + a.container::int desc, a.source_id limit ${MOST_LIKE}`,
  );
};

/** What the like sources have, the likeliest first, with what they have in common. */
function ranked(like: Like[], of: (l: Like) => string[]): { key: string; reason: string }[] {
  const found = new Map<string, Like[]>();
  for (const l of like) for (const key of of(l)) found.set(key, [...(found.get(key) ?? []), l]);
  // What stands everywhere says little where it stands here.
  const worth = (ls: Like[]): number => ls.reduce((sum, l) => sum + l.people.length * WEIGHT.person + l.terms.length * WEIGHT.term + (l.container ? WEIGHT.container : 0), 0); // prettier-ignore
  return [...found]
    .map(([key, ls]) => ({ key, worth: worth(ls) / Math.sqrt(ls.length), reason: reasonOf(ls) }))
    .filter((f) => f.worth >= LEAST)
    .sort((a, b) => b.worth - a.worth || (a.key < b.key ? -1 : 1))
    .slice(0, OFFERED);
}

/** "2 by Okonjo, Marit, 1 on Sedimentation". */
function reasonOf(like: Like[]): string {
  const said: string[] = [];
  const tell = (before: string, of: (l: Like) => string[]): void => {
    const counts = new Map<string, number>();
    for (const l of like) for (const x of of(l)) counts.set(x, (counts.get(x) ?? 0) + 1);
    const [most] = [...counts].sort((a, b) => b[1] - a[1]);
    if (most) said.push(`${most[1]} ${before} ${most[0]}`);
  };
  tell('by', (l) => l.people);
  tell('on', (l) => l.terms);
  if (!said.length) said.push(`${like.filter((l) => l.container).length} of the same journal or publisher`);
  return said.join(', ');
}
