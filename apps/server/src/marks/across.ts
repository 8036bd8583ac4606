/** Marks across sources: which there are, how many of each sort, and as a file. */
import { sql, type SQL } from 'drizzle-orm';
import type { AskMarks, ExportMarks, MarkRow, MarksAsked, MarkSort, MarksReply } from '@pandecta/contract';
import { MARK_INFO, type ExportedMark } from '@pandecta/core/mark-export';
import { SHAPE_NAMES, type Shape } from '@pandecta/core/marks';
import { citedPlace } from '@pandecta/core/page-numbers';
import { inPassing, withoutMarkup, type SourceRecord } from '@pandecta/core/source';
import { formatNumber } from '@pandecta/core/wording';
import type { Acting } from '../access/principal.ts';
import { nameOfActor, namesOf } from '../access/people.ts';
import { json, list, one, rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { Refusal } from '../errors.ts';
import { numbersOf } from '../files/numbers.ts';
import { chosenIds } from '../searching/chosen.ts';
import type { Services } from '../services.ts';
import { visibleTo } from '../subjects/registry.ts';
import { countedSense, MARK_COLUMNS, selectMark } from './store.ts';
import { sensesOf } from './senses.ts';

const AT_ONCE = 50;
/** So many are written to one file. */
const MOST_EXPORTED = 20_000;

/**
 * By what marks `m` are sorted. What is compared by the rules of a language (titles, names) is put in order once for each source,
 * sense and person, as `ranks`, and joined: comparing it for each mark took most of the time (docs/measurements.md).
 */
interface Order {
  by: SQL;
  ranks?: (workspace: SQL) => SQL;
  on?: SQL;
}
const NEWEST = sql`m.made_at desc, m.id`;
const ORDER: Record<MarkSort, Order> = {
  newest: { by: NEWEST },
  oldest: { by: sql`m.made_at, m.id` },
  place: {
    by: sql`r.rank, m.file_id, m.page, m.top, m.id`,
    ranks: (
      w,
    ) => sql`select s.id, row_number() over (order by lower(s.record->>'title') collate "pandecta", s.id) as rank
      from sources s where s.workspace_id = ${w} and s.id in (select source_id from marks where workspace_id = ${w})`,
    on: sql`m.source_id`,
  },
  sense: {
    by: sql`r.rank nulls last, ${NEWEST}`,
    ranks: (
      w,
    ) => sql`select e.id, dense_rank() over (order by (c.value->>'key')::int nulls last, lower(c.value->>'name') collate "pandecta", c.id) as rank
      from entries e join entries c on c.workspace_id = ${w} and c.list = 'sense' and c.id = coalesce((e.value->>'into')::uuid, e.id)
      where e.workspace_id = ${w} and e.list = 'sense'`,
    on: sql`m.sense_id`,
  },
  person: {
    by: sql`r.rank, ${NEWEST}`,
    ranks: (w) => sql`select p.id, row_number() over (order by lower(${nameOfActor}) collate "pandecta", p.id) as rank
      from (select distinct made_by as id from marks where workspace_id = ${w}) p left join users u on u.id = p.id`,
    on: sql`m.made_by`,
  },
};

/** Of all marks that are asked for: how many of each sense, shape and person, and the ids of a stretch of them. */
interface Asked {
  counts: { sense: string; shape: Shape; person: string; count: number }[];
  ids: string[];
}

async function askedFor(
  services: Services,
  caller: Acting,
  asked: MarksAsked & { sort?: MarkSort },
  stretch: { from: number; count: number },
): Promise<Asked> {
  const w = sql`${caller.actor.workspaceId}::uuid`;
  const sources = asked.sources && (await chosenIds(services, caller, { matching: asked.sources }));
  const words = asked.words?.trim().toLowerCase();
  const { by, ranks, on } = ORDER[asked.sort ?? 'place'];
  const senses = asked.senses && array(asked.senses, 'uuid');
  const also = [
    sources && sql`m.source_id = any(${array(sources, 'uuid')})`,
    words && sql`position(${words} in m.words) > 0`,
    // Those of a sense that was merged into another count as of that.
    asked.senses?.length &&
      sql`(m.sense_id = any(${senses}) or m.sense_id in (select id from entries where workspace_id = ${w} and list = 'sense' and (value->>'into')::uuid = any(${senses})))`,
    asked.shapes?.length && sql`m.shape = any(${array(asked.shapes, 'text')})`,
    asked.people?.length && sql`m.made_by = any(${array(asked.people, 'uuid')})`,
    asked.glossed && sql`m.gloss <> ''`,
  ].flatMap((part) => part || []);
  const found = await one(
    services.db,
    { counts: json<Asked['counts']>(), ids: list(text()) },
    sql`with ${ranks ? sql`r as materialized (${ranks(w)}),` : sql``} m as materialized (
      select m.id, m.source_id, m.file_id, m.page, m.top, m.made_at, m.sense_id, m.shape, m.made_by
      from marks m where m.workspace_id = ${w} and ${visibleTo(caller.actor, 'mark', sql`m`)} ${sql.join(also.map((part) => sql`and ${part} `))}
        and m.source_id in (select id from sources where workspace_id = ${w} and presence = 'live'))
    select (select coalesce(jsonb_agg(c), '[]') from (
        select ${countedSense} as sense, m.shape, m.made_by as person, m.count
        from (select ${w} as workspace_id, sense_id, shape, made_by, count(*)::int as count from m group by sense_id, shape, made_by) m) c) as counts,
      array(select m.id::text from m ${on ? sql`left join r on r.id = ${on}` : sql``} order by ${by} limit ${stretch.count} offset ${stretch.from}) as ids`,
  );
  return found!;
}

const ROW = { ...MARK_COLUMNS, title: text(), record: json<SourceRecord>() };

/** In the order of the ids. */
async function rowsOf({ db }: Services, { actor }: Acting, ids: string[]): Promise<MarkRow[]> {
  const of = await rows(
    db,
    ROW,
    sql`select ${selectMark}, coalesce(s.record->>'title', 'Untitled') as title,
      jsonb_build_object('author', s.record->'author', 'editor', s.record->'editor', 'issued', s.record->'issued') as record
      from unnest(${array(ids, 'uuid')}) with ordinality i(id, place)
      join marks m on m.workspace_id = ${actor.workspaceId} and m.id = i.id
      join sources s on s.workspace_id = m.workspace_id and s.id = m.source_id
      left join users u on u.id = m.made_by order by i.place`,
  );
  const numbers = await numbersOf(db, actor.workspaceId, of);
  return of.map(({ record, title, ...mark }) => ({
    ...mark,
    title: withoutMarkup(title),
    source: inPassing(record, withoutMarkup(title)),
    cited: citedPlace(numbers(mark), mark.page, mark.rects[0]?.y0),
  }));
}

export async function marksAcross(services: Services, caller: Acting, asked: AskMarks): Promise<MarksReply> {
  const { counts, ids } = await askedFor(services, caller, asked, { from: asked.from ?? 0, count: asked.count ?? AT_ONCE }); // prettier-ignore
  const [marks, senses, names] = await Promise.all([
    rowsOf(services, caller, ids),
    sensesOf(services.db, caller.actor),
    namesOf(services.db, [...new Set(counts.map((c) => c.person))]),
  ]);
  const each = (key: 'sense' | 'shape' | 'person', name: (c: Asked['counts'][number]) => string) => {
    const of = new Map<string, { key: string; name: string; count: number }>();
    for (const c of counts)
      of.set(c[key], { key: c[key], name: name(c), count: (of.get(c[key])?.count ?? 0) + c.count });
    return [...of.values()].sort((a, b) => b.count - a.count || a.name.localeCompare(b.name, 'en'));
  };
  return {
    total: counts.reduce((total, c) => total + c.count, 0),
    marks,
    senses: each('sense', (c) => senses.find((s) => s.id === c.sense)?.name ?? 'removed'),
    shapes: each('shape', (c) => SHAPE_NAMES[c.shape]),
    people: each('person', (c) => names.get(c.person) ?? ''),
  };
}
/** @param citations of each source, as its style prints it */
export async function writtenMarks(
  services: Services,
  caller: Acting,
  asked: ExportMarks,
  citations: (sources: string[]) => Promise<Map<string, string>>,
): Promise<{ bytes: Uint8Array; mediaType: string; name: string }> {
  const { ids } = await askedFor(services, caller, asked, { from: 0, count: MOST_EXPORTED + 1 });
  const marks = await rowsOf(services, caller, ids);
  if (marks.length > MOST_EXPORTED)
    throw new Refusal('invalid', `at most ${formatNumber(MOST_EXPORTED)} marks are written to one file`);
  const senses = new Map((await sensesOf(services.db, caller.actor)).map((s) => [s.id, s.name]));
  const cited = await citations([...new Set(marks.map((m) => m.sourceId))]);
  const out = marks.map((mark): ExportedMark => ({
    ...mark,
    sense: senses.get(mark.sense) ?? '',
    citation: cited.get(mark.sourceId) ?? '',
    at: new Date(mark.at).toISOString(),
  }));
  const { mediaType, extension } = MARK_INFO[asked.format];
  const bytes = await services.workers.run('writeMarks', { marks: out, format: asked.format });
  return { bytes, mediaType, name: `marks.${extension}` };
}
