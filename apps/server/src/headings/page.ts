/** A heading with all that stands under it. */
import { sql, type SQL } from 'drizzle-orm';
import type { HeadingInfo, HeadingPage, HeadingRole } from '@pandecta/contract';
import { standsInRecords } from '@pandecta/core/headings';
import type { Acting } from '../access/principal.ts';
import { number, one, orNull, rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { Refusal } from '../errors.ts';
import type { Services } from '../services.ts';
import { visibleTo } from '../subjects/registry.ts';
import { headingsOf } from './store.ts';

const MOST_NOTES = 200;
const MOST_BESIDE = 30;

/** In which facets of sources its names are looked for. */
const ROLES: { type: string; role: string; ask: (name: string) => string }[] = [
  { type: 'person', role: 'Author or editor', ask: (name) => `include=${encodeURIComponent(`person=${name}`)}` },
  { type: 'court', role: 'Court or authority', ask: (name) => `include=${encodeURIComponent(`court=${name}`)}` },
];

export async function headingPage({ db }: Services, { actor }: Acting, id: string): Promise<HeadingPage> {
  const all = await headingsOf(db, actor);
  const named = all.find((h) => h.id === id);
  const heading = named?.into ? all.find((h) => h.id === named.into) : named;
  if (!heading) throw new Refusal('no_such_heading');
  const merged = all.filter((h) => h.into === heading.id);
  const ids = array([heading.id, ...merged.map((h) => h.id)], 'uuid');
  const w = actor.workspaceId;
  const here = sql`n.workspace_id = ${w} and ${visibleTo(actor, 'note', sql`n`)} and n.about && ${ids}`;
  const [notes, times, marks, beside, roles] = await Promise.all([
    rows(db, { id: text(), title: text(), event: orNull(text()) }, sql`select n.id, n.title, n.event from notes n where ${here} order by n.event_from nulls last, n.title collate "pandecta", n.id limit ${MOST_NOTES}`), // prettier-ignore
    one(
      db,
      { first: orNull(text()), last: orNull(text()) },
      sql`select (select n.event from notes n where ${here} and n.event_from is not null order by n.event_from, n.id limit 1) as first,
        (select n.event from notes n where ${here} and n.event_to is not null order by n.event_to desc, n.id limit 1) as last`,
    ),
    one(
      db,
      { count: number },
      sql`select count(*)::int as count from marks m where m.workspace_id = ${w} and ${visibleTo(actor, 'mark', sql`m`)}
        and m.id in (select s.mark_id from note_sources s join notes n on n.workspace_id = s.workspace_id and n.id = s.note_id where s.workspace_id = ${w} and ${here})`,
    ),
    rows(
      db,
      { id: text(), count: number },
      sql`select a as id, count(*)::int as count from notes n, unnest(n.about) a where ${here} and a <> all(${ids}) group by a order by 2 desc, a limit ${MOST_BESIDE}`,
    ),
    rolesOf(db, w, [heading, ...merged]),
  ]);
  const nameOf = new Map(all.map((h) => [h.id, h]));
  const together = new Map<string, { id: string; name: string; count: number }>();
  for (const { id: one, count } of beside) {
    const found = nameOf.get(nameOf.get(one)?.into ?? one);
    if (!found) continue;
    const counts = together.get(found.id)?.count ?? 0;
    together.set(found.id, { id: found.id, name: found.name, count: counts + count });
  }
  return {
    heading,
    merged,
    narrower: all.filter((h) => h.parent === heading.id && !h.into),
    notes,
    roles,
    marks: marks!.count,
    beside: [...together.values()],
    first: times!.first,
    last: times!.last,
  };
}

/** The sources whose records have one of its names, by where they have it. */
async function rolesOf(db: Services['db'], workspaceId: string, of: HeadingInfo[]): Promise<HeadingRole[]> {
  if (!standsInRecords(of[0]!.kind)) return [];
  const names = array([...new Set(of.flatMap((h) => [h.name, ...h.others]))], 'text');
  const types: SQL = array(ROLES.map((r) => r.type), 'text'); // prettier-ignore
  const found = await rows(
    db,
    { type: text(), name: text(), count: number },
    sql`select f.type, f.key as name, count(*)::int as count from facets f
      join source_facets sf on sf.workspace_id = f.workspace_id and sf.ids @> array[f.id]
      join sources s on s.workspace_id = f.workspace_id and s.id = sf.source_id and s.presence = 'live'
      where f.workspace_id = ${workspaceId} and f.type = any(${types}) and f.key = any(${names}) group by f.type, f.key order by f.type desc, f.key`,
  );
  return found.map(({ type, name, count }) => {
    const { role, ask } = ROLES.find((r) => r.type === type)!;
    return { role: name === of[0]!.name ? role : `${role}, as ${name}`, query: ask(name), count };
  });
}
