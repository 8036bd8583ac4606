/** The lines of the ledger for given sources, with where each matched. */
import { sql, type SQL } from 'drizzle-orm';
import {
  LEFT_OUT,
  type Hit,
  type InBin,
  type LabelOnSource,
  type SourceRow,
  type TagOnSource,
} from '@pandecta/contract';
import { nothingSought, soughtIn, TEXT_FIELDS } from '@pandecta/core/query';
import { type ReadingState } from '@pandecta/core/changes';
import { nameSpoken, NAME_VARIABLES, variableLabel, withoutMarkup, type SourceRecord } from '@pandecta/core/source';
import { cut } from '@pandecta/core/text';
import { findLit, snippet, type Sought } from '@pandecta/core/words';
import type { Db } from '../database/connect.ts';
import { json, list, number, orNull, rows, text, truth } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { prefixOf } from '../indexing/vector.ts';
import { ownColumns } from '../own/store.ts';
import { seenBy } from '../places/store.ts';
import { binDaysOf } from '../sources/purge.ts';
import { stateColumns } from '../stating/store.ts';
import type { Question } from './match.ts';

const LINE = {
  id: text(),
  record: json<SourceRecord>(),
  reading: orNull(text<ReadingState>()),
  starred: truth,
  rating: orNull(number),
  recheck: orNull(text()),
  labels: json<LabelOnSource[] | null>(),
  added_at: text(),
  tags: json<TagOnSource[] | null>(),
  places: list(text()),
  bin: orNull(json<InBin>()),
  files: number,
  pages: number,
  marks: number,
  file_id: orNull(text()),
  trouble: orNull(text()),
  glosses: orNull(list(text())),
};

export async function ledgerRows(db: Db, q: Question, ids: string[], abstracts = false): Promise<SourceRow[]> {
  const w = sql`${q.scope.workspaceId}::uuid`;
  const sought = soughtIn(q.tree, TEXT_FIELDS);
  const searching = !nothingSought(sought);
  const found = await rows(
    db,
    LINE,
    sql`
    select s.id, s.record, s.added_at,
      ${ownColumns(w, q.scope.member)}, ${stateColumns(w)},
      (select jsonb_agg(jsonb_build_object('id', t.id, 'name', t.name, 'subject', t.subject, 'says', nullif(t.says, '')) order by t.subject, t.name) from source_tags st
        join tags t on t.workspace_id = ${w} and t.id = st.tag_id where st.workspace_id = ${w} and st.source_id = s.id) as tags,
      array(select cs.collection_id::text from collection_sources cs join collections c on c.workspace_id = ${w} and c.id = cs.collection_id and c.present and ${seenBy(q.scope.member)}
        where cs.workspace_id = ${w} and cs.source_id = s.id order by c.name) as places,
      ${q.scope.presence === 'bin' ? inBin(w) : sql`null::jsonb`} as bin,
      coalesce(f.files, 0) as files, coalesce(f.pages, 0) as pages, f.file_id, f.trouble,
      (select count(*)::int from marks m where m.workspace_id = ${w} and m.source_id = s.id and m.present) as marks,
      ${searching ? sql`(select array_agg(m.gloss) from marks m where m.workspace_id = ${w} and m.source_id = s.id and m.present and m.gloss <> '')` : sql`null::text[]`} as glosses
    from unnest(${array(ids, 'uuid')}) with ordinality as u(id, place)
    join sources s on s.workspace_id = ${w} and s.id = u.id
    left join lateral (select count(*)::int as files, sum(fl.pages)::int as pages, (array_agg(fl.id order by (fl.id = s.main_file) desc nulls last, (fl.state = 'text') desc, fl.pages desc) filter (where fl.address is null))[1] as file_id,
        case when not bool_or(fl.state = 'text') then (array_agg(fl.state order by (fl.id = s.main_file) desc nulls last, fl.pages desc) filter (where fl.state in ('image only', 'encrypted', 'damaged')))[1] end as trouble
      from source_files sf join files fl on fl.workspace_id = ${w} and fl.id = sf.file_id
      where sf.workspace_id = ${w} and sf.source_id = s.id) f on true
    order by u.place`,
  );
  const pageHits = searching
    ? await findPageHits(
        db,
        q,
        sought,
        found.filter((f) => f.pages > 0).map((f) => f.id),
      )
    : new Map<string, PageHits>();
  return found.map((f) => ({
    id: f.id,
    record: brief(f.record),
    reading: f.reading,
    starred: f.starred,
    rating: f.rating,
    recheck: f.recheck,
    labels: f.labels ?? [],
    addedAt: f.added_at,
    tags: f.tags ?? [],
    places: f.places,
    ...(f.bin && { bin: f.bin }),
    files: f.files,
    pages: f.pages,
    marks: f.marks,
    fileId: f.file_id,
    ...(f.trouble && { fileTrouble: f.trouble }),
    ...(abstracts && f.record.abstract && { abstract: cut(withoutMarkup(f.record.abstract), MOST_OF_ABSTRACT) }),
    titleLit: searching && f.record.title ? findLit(f.record.title, sought) : [],
    ...placesOf(searching ? recordHits(f.record, f.glosses ?? [], sought) : [], pageHits.get(f.id)),
  }));
}

/** When a source came into the bin, by whom, and when it goes: told of those in the bin alone. */
const inBin = (w: SQL): SQL => sql`(select jsonb_build_object('at', s.changed_at,
    'goes', s.changed_at + make_interval(days => ${binDaysOf}),
    'by', coalesce((select u.name from change_subjects cs join changes c on c.workspace_id = cs.workspace_id and c.id = cs.change_id
      join users u on u.id = c.actor_id where cs.workspace_id = ${w} and cs.kind = 'source' and cs.subject_id = s.id
      order by c.id desc limit 1), ''))
  from workspaces w where w.id = ${w})`;

function brief(record: SourceRecord): SourceRow['record'] {
  const out = { ...record };
  for (const field of LEFT_OUT) delete out[field];
  return out;
}

/** Fields of the record that say nothing by themselves, or what another says at length. */
const UNTOLD = new Set(['type', 'DOI', 'title-short', 'container-title-short', 'citation-key']);

/** So much of an abstract fits on two lines. */
const MOST_OF_ABSTRACT = 320;

/** How many places are told of a source. */
const MOST_PLACES = 3;

/** The pages first, which one can open; how many more there are. */
function placesOf(inRecord: Hit[], onPages: PageHits | undefined): Pick<SourceRow, 'hits' | 'moreHits'> {
  const hits = [...(onPages?.hits ?? []), ...inRecord].slice(0, MOST_PLACES);
  return { hits, moreHits: (onPages?.count ?? 0) + inRecord.length - hits.length };
}

/** Where the record matched, apart from its title, which is lit itself. */
function recordHits(record: SourceRecord, glosses: string[], sought: Sought): Hit[] {
  const at = (field: string, text: string | undefined): Hit[] => {
    const s = text && snippet(withoutMarkup(text), sought);
    return s ? [{ where: variableLabel(field), ...s }] : [];
  };
  const { title: _title, abstract, note, custom: _custom, ...rest } = record;
  const said = [
    ...at('abstract', abstract),
    ...at('note', note),
    ...glosses.flatMap((gloss) => at('gloss', gloss)),
    ...NAME_VARIABLES.flatMap((v) => at(v, record[v]?.map(nameSpoken).join('; '))),
    ...Object.entries(rest).flatMap(([field, value]) =>
      typeof value === 'string' && !UNTOLD.has(field) ? at(field, value) : [],
    ),
  ];
  // Words within an identifier are told where they stand nowhere else.
  return said.length || !record.DOI ? said : at('DOI', record.DOI);
}

/** The best pages of a source, and how many match in all. */
interface PageHits {
  hits: Hit[];
  count: number;
}

/** For each source the pages that hold most of what is asked for. */
async function findPageHits(db: Db, q: Question, sought: Sought, ids: string[]): Promise<Map<string, PageHits>> {
  const lexemes = pageTsquery(q.scope.workspaceNumber, sought);
  if (!ids.length || !lexemes.any) return new Map();
  const found = await rows(
    db,
    { source_id: text(), file_id: text(), number: number, count: number, text: text() },
    sql`
    select u.id as source_id, h.file_id, h.number, h.count, pg.text from unnest(${array(ids, 'uuid')}) as u(id)
    cross join lateral (
      select p.file_id, p.number, (count(*) over ())::int as count from source_files sf
      join page_text p on p.workspace_id = ${q.scope.workspaceId} and p.file_id = sf.file_id
      where sf.workspace_id = ${q.scope.workspaceId} and sf.source_id = u.id and p.vector @@ ${lexemes.any}::tsquery
      order by (p.vector @@ ${lexemes.all}::tsquery) desc, ts_rank(p.vector, ${lexemes.any}::tsquery) desc, p.number limit ${MOST_PLACES}) h
    join pages pg on pg.workspace_id = ${q.scope.workspaceId} and pg.file_id = h.file_id and pg.number = h.number`,
  );
  const out = new Map<string, PageHits>();
  for (const f of found) {
    const s = snippet(f.text, sought);
    const of = out.get(f.source_id) ?? { hits: [], count: f.count };
    if (s) of.hits.push({ where: `p. ${f.number}`, fileId: f.file_id, page: f.number, ...s });
    out.set(f.source_id, of);
  }
  return out;
}

/** Queries over the pages of a workspace: with any, and with all, of what is sought. */
export function pageTsquery(workspaceNumber: number, sought: Sought): { any: string; all: string } {
  const lead = prefixOf(workspaceNumber);
  const quote = (s: string): string => `'${(lead + s).replaceAll("'", "''")}'`;
  const terms = [
    ...[...sought.stems].map(quote),
    ...sought.prefixes.map((p) => `${quote(p)}:*`),
    ...sought.phrases.map((p) => `(${p.map(quote).join(' <-> ')})`),
  ];
  return { any: terms.join(' | '), all: terms.join(' & ') };
}
