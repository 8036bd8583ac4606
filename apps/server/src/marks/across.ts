/** Marks across sources: which there are, how many of each sort, and as a file. */
import { sql, type SQL } from 'drizzle-orm';
import type { AskMarks, ExportMarks, MarkRow, MarksAsked, MarkSort, MarksReply } from '@pandecta/contract';
import { MARK_INFO, type ExportedMark } from '@pandecta/core/mark-export';
import { SHAPE_NAMES } from '@pandecta/core/marks';
import { citedPlace } from '@pandecta/core/page-numbers';
import { namesShort, withoutMarkup, yearShort, type SourceRecord } from '@pandecta/core/source';
import { formatNumber } from '@pandecta/core/wording';
import type { Acting } from '../access/principal.ts';
import { nameOfActor } from '../access/people.ts';
import { json, number, orNull, rows, text } from '../database/read.ts';
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

const ORDER: Record<MarkSort, SQL> = {
  place: sql`lower(s.record->>'title') collate "pandecta", s.id, m.file_id, m.page, (m.rects->0->>'y0')::real, m.id`,
  newest: sql`m.made_at desc, m.id desc`,
  oldest: sql`m.made_at, m.id`,
  sense: sql`(e.value->>'key')::int nulls last, lower(e.value->>'name') collate "pandecta", m.made_at desc, m.id`,
  person: sql`lower(${nameOfActor}) collate "pandecta", m.made_at desc, m.id`,
};

/** The marks `m` that are asked for, of sources `s`, with who made them `u` and the sense they count as `e`. */
async function from(services: Services, caller: Acting, asked: MarksAsked): Promise<SQL> {
  const w = sql`${caller.actor.workspaceId}::uuid`;
  const sources = asked.sources && (await chosenIds(services, caller, { matching: asked.sources }));
  const words = asked.words?.trim().toLowerCase();
  const also = [
    sources && sql`m.source_id = any(${array(sources, 'uuid')})`,
    words && sql`(position(${words} in lower(m.quote->>'exact')) > 0 or position(${words} in lower(m.gloss)) > 0)`,
    asked.senses?.length && sql`${countedSense} = any(${array(asked.senses, 'uuid')})`,
    asked.shapes?.length && sql`m.shape = any(${array(asked.shapes, 'text')})`,
    asked.people?.length && sql`m.made_by = any(${array(asked.people, 'uuid')})`,
    asked.glossed && sql`m.gloss <> ''`,
  ].flatMap((part) => part || []);
  return sql`from marks m join sources s on s.workspace_id = ${w} and s.id = m.source_id and s.presence = 'live'
    left join users u on u.id = m.made_by
    left join entries e on e.workspace_id = ${w} and e.list = 'sense' and e.id = ${countedSense}
    where m.workspace_id = ${w} and ${visibleTo(caller.actor, 'mark', sql`m`)} ${sql.join(also.map((part) => sql`and ${part} `))}`;
}

const ROW = { ...MARK_COLUMNS, title: text(), record: json<SourceRecord>() };

async function found(
  { db }: Services,
  caller: Acting,
  what: SQL,
  sort: MarkSort,
  stretch: { from: number; count: number },
): Promise<MarkRow[]> {
  const of = await rows(
    db,
    ROW,
    sql`select ${selectMark}, coalesce(s.record->>'title', 'Untitled') as title,
      jsonb_build_object('author', s.record->'author', 'editor', s.record->'editor', 'issued', s.record->'issued') as record
      ${what} order by ${ORDER[sort]} limit ${stretch.count} offset ${stretch.from}`,
  );
  const numbers = await numbersOf(db, caller.actor.workspaceId, of);
  return of.map(({ record, title, ...mark }) => ({
    ...mark,
    title: withoutMarkup(title),
    source: [namesShort(record.author ?? record.editor) || withoutMarkup(title), yearShort(record.issued)]
      .filter(Boolean)
      .join(' '),
    cited: citedPlace(numbers(mark), mark.page, mark.rects[0]?.y0),
  }));
}

export async function marksAcross(services: Services, caller: Acting, asked: AskMarks): Promise<MarksReply> {
  const what = await from(services, caller, asked);
  const [counts, marks] = await Promise.all([
    rows(
      services.db,
      { sense: orNull(text()), shape: orNull(text()), person: orNull(text()), name: orNull(text()), count: number },
      sql`select ${countedSense} as sense, m.shape, m.made_by as person, max(${nameOfActor}) as name, count(*)::int as count
        ${what} group by grouping sets ((), (${countedSense}), (m.shape), (m.made_by))`,
    ),
    found(services, caller, what, asked.sort ?? 'place', { from: asked.from ?? 0, count: asked.count ?? AT_ONCE }),
  ]);
  const senses = await sensesOf(services.db, caller.actor);
  const most = (a: { count: number; name: string }, b: { count: number; name: string }): number =>
    b.count - a.count || a.name.localeCompare(b.name, 'en');
  const of = (key: 'sense' | 'shape' | 'person', name: (c: (typeof counts)[number]) => string) =>
    counts.flatMap((c) => (c[key] === null ? [] : [{ key: c[key], name: name(c), count: c.count }])).sort(most);
  return {
    total: counts.find((c) => !c.sense && !c.shape && !c.person)?.count ?? 0,
    marks,
    senses: of('sense', (c) => senses.find((s) => s.id === c.sense)?.name ?? 'removed'),
    shapes: of('shape', (c) => SHAPE_NAMES[c.shape as keyof typeof SHAPE_NAMES]),
    people: of('person', (c) => c.name ?? ''),
  };
}

/** @param citations of each source, as its style prints it */
export async function writtenMarks(
  services: Services,
  caller: Acting,
  asked: ExportMarks,
  citations: (sources: string[]) => Promise<Map<string, string>>,
): Promise<{ bytes: Uint8Array; mediaType: string; name: string }> {
  const what = await from(services, caller, asked);
  const marks = await found(services, caller, what, asked.sort ?? 'place', { from: 0, count: MOST_EXPORTED + 1 });
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
