/** Notes that are asked for: a stretch of them, how many of each sort, when they happened, and what they are tied to. */
import { sql, type SQL } from 'drizzle-orm';
import type { AskNotes, AskWeb, NoteFrom, NoteRow, NotesAsked, NotesReply, TimelineReply, WebReply } from '@pandecta/contract'; // prettier-ignore
import type { HeadingKind } from '@pandecta/core/headings';
import { nothingSought, parseQuery, soughtIn } from '@pandecta/core/query';
import { snippet } from '@pandecta/core/words';
import { cut } from '@pandecta/core/text';
import type { Acting } from '../access/principal.ts';
import { nameOfActor } from '../access/people.ts';
import { idsOf } from '../database/connect.ts';
import { json, list, number, one, orNull, rows, text, truth } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { countedHeadings, headingsOf } from '../headings/store.ts';
import type { Services } from '../services.ts';
import { visibleTo } from '../subjects/registry.ts';
import { compileNotes } from './compile.ts';
import { sourcesOf } from './store.ts';

const AT_ONCE = 50;
const EXCERPT = 180;
const MOST_TIMED = 5000;
const MOST_IN_WEB = 2000;

/** The first day of a year, from 1970-01-01 (docs of PostgreSQL, “Date/Time Types”: years before 1 are written BC). */
const firstDay = (year: number): SQL =>
  sql`(make_date(${year < 0 ? year : Math.max(1, year)}, 1, 1) - date '1970-01-01')`;

const FROM: Record<NoteFrom, SQL> = {
  mark: sql`exists (select 1 from note_sources t where t.workspace_id = n.workspace_id and t.note_id = n.id and t.mark_id is not null)`,
  source: sql`exists (select 1 from note_sources t where t.workspace_id = n.workspace_id and t.note_id = n.id) and not exists (select 1 from note_sources t where t.workspace_id = n.workspace_id and t.note_id = n.id and t.mark_id is not null)`,
  neither: sql`not exists (select 1 from note_sources t where t.workspace_id = n.workspace_id and t.note_id = n.id)`,
};
const FROM_NAMES: Record<NoteFrom, string> = {
  mark: 'A mark on a page',
  source: 'A source as a whole',
  neither: 'Neither',
};

/** The condition on notes `n` for what is asked, and how well they fit. */
async function conditionFor(
  services: Services,
  caller: Acting,
  asked: NotesAsked,
): Promise<{ condition: SQL; rank: SQL }> {
  const { actor } = caller;
  const w = sql`${actor.workspaceId}::uuid`;
  const headings = (id: string): SQL =>
    sql`n.about && array(select id from (${countedHeadings(actor.workspaceId)}) h where h.counts = (select coalesce((value->>'into')::uuid, id) from entries where workspace_id = ${w} and list = 'heading' and id = ${id}::uuid))`;
  const question = asked.q?.trim() ? await compileNotes(services, caller, asked.q) : undefined;
  const parts = [
    sql`n.workspace_id = ${w}`,
    visibleTo(actor, 'note', sql`n`),
    question?.condition,
    ...(asked.about ?? []).map(headings),
    ...(asked.tags ?? []).map((id) => sql`n.tags @> array[${id}::uuid]`),
    asked.from?.length && sql`(${sql.join(asked.from.map((f) => FROM[f]), sql` or `)})`, // prettier-ignore
    asked.source && sql`n.id in (select note_id from note_sources where workspace_id = ${w} and source_id = ${asked.source}::uuid)`, // prettier-ignore
    asked.outline && sql`n.id in (select (p #>> '{}')::uuid from entries e, jsonb_path_query(e.value, '$.**.note') p where e.workspace_id = ${w} and e.list = 'outline' and e.id = ${asked.outline}::uuid and ${visibleTo(actor, 'outline', sql`e`)} and p <> 'null')`, // prettier-ignore
    asked.whose === 'own' ? sql`n.owner is not null` : asked.whose === 'shared' && sql`n.owner is null`,
    asked.yearFrom !== undefined && sql`n.event_to >= ${firstDay(asked.yearFrom)}`,
    asked.yearTo !== undefined && sql`n.event_from < ${firstDay(asked.yearTo + 1)}`,
  ].flatMap((part) => part || []);
  const rank = question?.rank ? sql`ts_rank(n.vector, ${question.rank}::tsquery)` : sql`0`;
  return { condition: sql.join(parts, sql` and `), rank };
}

const ORDERS: Record<string, SQL> = {
  event: sql`m.event_from`,
  changed: sql`m.changed_at`,
  found: sql`m.rank`,
  title: sql`lower(m.title) collate "pandecta"`,
  author: sql`(select ss.author collate "pandecta" from note_sources t join source_sort ss on ss.workspace_id = t.workspace_id and ss.source_id = t.source_id where t.workspace_id = m.workspace_id and t.note_id = m.id order by t.place limit 1)`,
};
const orderOf = (sort: string[]): SQL =>
  sql.join(
    [
      ...sort.map((s) => (s.startsWith('-') ? sql`${ORDERS[s.slice(1)]!} desc nulls last` : sql`${ORDERS[s]!} nulls last`)), // prettier-ignore
      sql`m.id`,
    ],
    sql`, `,
  );

type Counts = { key: string; count: number }[];

export async function notesAsked(services: Services, caller: Acting, asked: AskNotes): Promise<NotesReply> {
  const { db } = services;
  const { actor } = caller;
  const { condition, rank } = await conditionFor(services, caller, asked);
  const counts = (select: SQL): SQL => sql`(select coalesce(jsonb_agg(c order by c.count desc, c.key), '[]') from (${select}) c)`; // prettier-ignore
  const found = (await one(
    db,
    {
      total: number,
      ids: list(text()),
      about: json<Counts>(),
      tags: json<(Counts[number] & { name: string })[]>(),
      from: json<{ key: NoteFrom; count: number }[]>(),
      whose: json<Counts>(),
      years: json<{ year: number; count: number }[]>(),
    },
    sql`with h as (${countedHeadings(actor.workspaceId)}), m as materialized (
      select n.workspace_id, n.id, n.title, n.event_from, n.changed_at, n.about, n.tags, n.owner, ${rank} as rank, ${FROM.mark} as marked, ${FROM.neither} as alone from notes n where ${condition})
    select (select count(*)::int from m) as total,
      array(select m.id::text from m order by ${orderOf(asked.sort?.length ? asked.sort : ['-changed'])} limit ${asked.count ?? AT_ONCE} offset ${asked.place ?? 0}) as ids,
      ${counts(sql`select h.counts as key, count(distinct m.id)::int as count from m, unnest(m.about) a join h on h.id = a group by 1`)} as about,
      ${counts(sql`select t.id as key, t.name, count(*)::int as count from m, unnest(m.tags) a join tags t on t.workspace_id = ${actor.workspaceId} and t.id = a group by 1, 2`)} as tags,
      ${counts(sql`select case when marked then 'mark' when alone then 'neither' else 'source' end as key, count(*)::int as count from m group by 1`)} as from,
      ${counts(sql`select case when owner is null then 'shared' else 'own' end as key, count(*)::int as count from m group by 1`)} as whose,
      (select coalesce(jsonb_agg(c order by c.year), '[]') from (select extract(year from date '1970-01-01' + event_from)::int as year, count(*)::int as count from m where event_from is not null group by 1) c) as years`,
  ))!;
  const [notes, headings] = await Promise.all([rowsOf(services, caller, found.ids, asked.q ?? ''), headingsOf(db, actor)]); // prettier-ignore
  const byId = new Map(headings.map((h) => [h.id, h]));
  return {
    total: found.total,
    notes,
    about: found.about.flatMap(({ key, count }) => {
      const heading = byId.get(key);
      return heading ? [{ id: key, name: heading.name, kind: heading.kind, count }] : [];
    }),
    tags: found.tags,
    from: found.from.map((f) => ({ ...f, name: FROM_NAMES[f.key] })),
    whose: found.whose.map((o) => ({ ...o, name: o.key === 'own' ? 'Yours alone' : 'Shared' })),
    years: found.years,
  };
}

/** The ids of all that are asked for, by title. @param most of which one more is given, so that one sees there are */
export async function idsAsked(services: Services, caller: Acting, asked: NotesAsked, most: number): Promise<string[]> {
  const { condition } = await conditionFor(services, caller, asked);
  const all = sql`select m.id from notes m where m.id in (select n.id from notes n where ${condition}) and m.workspace_id = ${caller.actor.workspaceId}
    order by ${orderOf(['title'])} limit ${most + 1}`;
  return idsOf(await rows(services.db, { id: text() }, all));
}

/** The text in one line, without the title where it begins with it. */
const beyondTitle = (plain: string, title: string): string => {
  const line = plain.replace(/\s+/g, ' ').trim();
  const begins = title.replace(/…$/, '');
  return begins && line.startsWith(begins) && line.length > begins.length ? line.slice(begins.length).trim() : line;
};

/** In the order of the ids. @param q lit in what is shown of their text */
async function rowsOf({ db }: Services, { actor }: Acting, ids: string[], q: string): Promise<NoteRow[]> {
  if (!ids.length) return [];
  const [of, sources] = await Promise.all([
    rows(
      db,
      { id: text(), title: text(), plain: text(), event: orNull(text()), by: text(), changed: text(), personal: truth, outlines: number }, // prettier-ignore
      sql`select n.id, n.title, left(n.plain, 20000) as plain, n.event, ${nameOfActor} as by, n.changed_at as changed, n.owner is not null as personal,
          (select count(*)::int from entries e where e.workspace_id = n.workspace_id and e.list = 'outline' and ${visibleTo(actor, 'outline', sql`e`)} and e.value->'nodes' @? ('$.**.note ? (@ == "' || n.id || '")')::jsonpath) as outlines
        from unnest(${array(ids, 'uuid')}) with ordinality i(id, place) join notes n on n.workspace_id = ${actor.workspaceId} and n.id = i.id
        left join users u on u.id = n.made_by order by i.place`,
    ),
    sourcesOf(db, actor, ids),
  ]);
  const sought = soughtIn(parseQuery(q).tree, ['note']);
  const isSought = !nothingSought(sought);
  return of.map(({ plain, ...row }) => ({
    ...row,
    excerpt: (isSought && snippet(plain, sought, EXCERPT)?.text) || cut(beyondTitle(plain, row.title), EXCERPT),
    sources: (sources.get(row.id) ?? []).slice(0, 3),
  }));
}

export async function timeline(services: Services, caller: Acting, asked: NotesAsked): Promise<TimelineReply> {
  const { condition } = await conditionFor(services, caller, asked);
  const found = await rows(
    services.db,
    { id: text(), title: text(), event: text(), from: number, to: number, about: list(text()) },
    sql`select n.id, n.title, n.event, n.event_from as "from", n.event_to as "to", array(select h.counts::text from unnest(n.about) a join (${countedHeadings(caller.actor.workspaceId)}) h on h.id = a) as about
      from notes n where ${condition} and n.event_from is not null order by n.event_from, n.event_to, n.id limit ${MOST_TIMED + 1}`,
  );
  const undated = await one(services.db, { count: number }, sql`select count(*)::int as count from notes n where ${condition} and n.event_from is null`); // prettier-ignore
  return { notes: found.slice(0, MOST_TIMED), undated: undated!.count, more: found.length > MOST_TIMED };
}

/** Notes, or one with what is around it, and the headings, sources and notes they are tied to. */
export async function web(services: Services, caller: Acting, { around, ...asked }: AskWeb): Promise<WebReply> {
  const { db } = services;
  const { actor } = caller;
  const w = actor.workspaceId;
  const condition = around
    ? sql`n.workspace_id = ${w} and ${visibleTo(actor, 'note', sql`n`)} and (n.id = ${around}::uuid
        or n.id in (select target_id from note_links where workspace_id = ${w} and note_id = ${around}::uuid)
        or n.id in (select note_id from note_links where workspace_id = ${w} and target_id = ${around}::uuid))`
    : (await conditionFor(services, caller, asked)).condition;
  const found = await rows(
    db,
    { id: text(), title: text(), about: list(text()) },
    sql`select n.id, n.title, array(select h.counts::text from unnest(n.about) a join (${countedHeadings(w)}) h on h.id = a) as about
      from notes n where ${condition} order by n.changed_at desc, n.id limit ${MOST_IN_WEB + 1}`,
  );
  const shown = found.slice(0, MOST_IN_WEB);
  // Around one note only that note's own headings and sources are shown.
  const tied = around ? shown.filter((n) => n.id === around) : shown;
  const [sources, links, headings] = await Promise.all([
    sourcesOf(db, actor, tied.map((n) => n.id)), // prettier-ignore
    rows(
      db,
      { from: text(), to: text(), how: text() },
      sql`select l.note_id as "from", l.target_id as "to", l.how from note_links l where l.workspace_id = ${w} and l.note_id = any(${array(shown.map((n) => n.id), 'uuid')}) order by 1, 2, 3`, // prettier-ignore
    ),
    headingsOf(db, actor),
  ]);
  const byId = new Map(headings.map((h) => [h.id, h]));
  const nodes = new Map<string, WebReply['nodes'][number]>();
  /** By what they tie: a link that says how takes the place of one that only quotes. */
  const ties = new Map<string, WebReply['links'][number]>();
  const tie = (from: string, to: string, how: string): unknown => ties.set(`${from} ${to}`, { from, to, how });
  for (const { id, title } of shown) nodes.set(id, { id, kind: 'note', name: title });
  const heading = (id: string): boolean => {
    const found = byId.get(id);
    if (found) nodes.set(id, { id, kind: found.kind as HeadingKind, name: found.name });
    return Boolean(found);
  };
  for (const { id, about } of tied) for (const one of new Set(about)) if (heading(one)) tie(id, one, 'about');
  for (const [note, of] of sources)
    for (const source of of) {
      nodes.set(source.id, { id: source.id, kind: 'source', name: source.name });
      tie(note, source.id, 'quotes');
    }
  for (const { from, to, how } of links) {
    const target = byId.get(to)?.into ?? to;
    if (!nodes.has(target) && !heading(target)) continue;
    tie(from, target, how || ties.get(`${from} ${target}`)?.how || 'links to');
  }
  return { nodes: [...nodes.values()], links: [...ties.values()], more: found.length > MOST_IN_WEB };
}
