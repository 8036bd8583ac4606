/** The lines of the ledger for given sources, with where each matched. */
import { sql } from 'drizzle-orm';
import { LEFT_OUT, type Hit, type SourceRow } from '@pandecta/contract';
import { nothingSought, soughtIn, TEXT_FIELDS } from '@pandecta/core/query';
import { nameSpoken, NAME_VARIABLES, variableLabel, withoutMarkup, type SourceRecord } from '@pandecta/core/source';
import { cut } from '@pandecta/core/text';
import { findLit, snippet, type Sought } from '@pandecta/core/words';
import type { Db } from '../database/connect.ts';
import { json, number, rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { prefixOf } from '../database/lexemes.ts';
import { LINE_PARTS, type PartField } from './line.ts';
import type { Question } from './match.ts';

const LINE = { id: text(), record: json<SourceRecord>(), added_at: text() };

export async function ledgerRows(db: Db, q: Question, ids: string[], abstracts = false): Promise<SourceRow[]> {
  const w = sql`${q.scope.workspaceId}::uuid`;
  const sought = soughtIn(q.tree, TEXT_FIELDS);
  const searching = !nothingSought(sought);
  const parts = LINE_PARTS.all;
  const asked = { workspace: w, viewer: q.scope, presence: q.scope.presence, searching };
  const found = await rows(
    db,
    { ...LINE, ...Object.assign({}, ...parts.map((p) => p.columns)) } as typeof LINE,
    sql`
    select s.id, s.record, s.added_at, ${sql.join(
      parts.map((p) => p.select(asked)),
      sql`, `,
    )}
    from unnest(${array(ids, 'uuid')}) with ordinality as u(id, place)
    join sources s on s.workspace_id = ${w} and s.id = u.id
    ${sql.join(parts.flatMap((p) => p.join?.(w) ?? []))}
    order by u.place`,
  );
  const lines = found.map((row) => {
    const told = Object.assign({}, ...parts.map((p) => p.line(row))) as Pick<SourceRow, PartField>;
    return { row, told, texts: parts.flatMap((p) => p.texts?.(row) ?? []) };
  });
  const pageHits = searching
    ? await findPageHits(
        db,
        q,
        sought,
        lines.filter((l) => l.told.pages > 0).map((l) => l.row.id),
      )
    : new Map<string, PageHits>();
  return lines.map(({ row: { id, record, added_at: addedAt }, told, texts }) => ({
    id,
    record: brief(record),
    addedAt,
    ...told,
    ...(abstracts && record.abstract && { abstract: cut(withoutMarkup(record.abstract), MOST_OF_ABSTRACT) }),
    titleLit: searching && record.title ? findLit(record.title, sought) : [],
    ...placesOf(searching ? recordHits(record, texts, sought) : [], pageHits.get(id)),
  }));
}

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
function recordHits(record: SourceRecord, texts: [where: string, text: string][], sought: Sought): Hit[] {
  const at = (field: string, text: string | undefined): Hit[] => {
    const s = text && snippet(withoutMarkup(text), sought);
    return s ? [{ where: variableLabel(field), ...s }] : [];
  };
  const { title: _title, abstract, note, custom: _custom, ...rest } = record;
  const said = [
    ...at('abstract', abstract),
    ...at('note', note),
    ...texts.flatMap(([where, text]) => at(where, text)),
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
