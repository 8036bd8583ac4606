/** The lines of the ledger for given sources, with where each matched. */
import { sql, type SQL } from 'drizzle-orm';
import { LEFT_OUT, type Hit, type SourceRow } from '@pandecta/contract';
import { nothingSought, soughtIn, TEXT_FIELDS } from '@pandecta/core/query';
import { nameSpoken, NAME_VARIABLES, variableLabel, withoutMarkup, type SourceRecord } from '@pandecta/core/source';
import { citedPage, placeWritten } from '@pandecta/core/page-numbers';
import { cut } from '@pandecta/core/text';
import { findLit, snippet, type Sought } from '@pandecta/core/words';
import type { Db } from '../database/connect.ts';
import { json, number, orNull, rows, text, truth } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { DOCUMENTS, PAGE_NUMBERS } from '../indexing/documents.ts';
import { LINE_PARTS, type PartField } from './line.ts';
import type { Question } from './match.ts';

const LINE = { id: text(), record: json<SourceRecord>(), added_at: text(), has_documents: truth };

export async function ledgerRows(db: Db, q: Question, ids: string[], abstracts = false): Promise<SourceRow[]> {
  const w = sql`${q.scope.workspaceId}::uuid`;
  const sought = soughtIn(q.tree, TEXT_FIELDS);
  const searching = !nothingSought(sought);
  const parts = LINE_PARTS.all;
  const asked = { workspace: w, viewer: q.scope, presence: q.scope.presence };
  const found = await rows(
    db,
    { ...LINE, ...Object.assign({}, ...parts.map((p) => p.columns)) } as typeof LINE,
    sql`
    select s.id, s.record, s.added_at, ${searching ? hasDocuments(w) : sql`false`} as has_documents, ${sql.join(
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
    return { row, told };
  });
  const inDocuments = await findInDocuments(
    db,
    q,
    sought,
    found.filter((f) => f.has_documents).map((f) => f.id),
  );
  return lines.map(({ row: { id, record, added_at: addedAt }, told }) => ({
    id,
    record: brief(record),
    addedAt,
    ...told,
    ...(abstracts && record.abstract && { abstract: cut(withoutMarkup(record.abstract), MOST_OF_ABSTRACT) }),
    titleLit: searching && record.title ? findLit(record.title, sought) : [],
    ...placesOf(searching ? recordHits(record, sought) : [], inDocuments.get(id)),
  }));
}

/** Whether a document is on the source `s`, by itself or as a page of a file. */
const hasDocuments = (
  w: SQL,
): SQL => sql`(exists (select 1 from documents d where d.workspace_id = ${w} and d.source_id = s.id)
  or exists (select 1 from source_files sf join documents p on p.workspace_id = ${w} and p.kind = 'page' and p.id = sf.file_id
    where sf.workspace_id = ${w} and sf.source_id = s.id))`;

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

/** The documents first, most of which one can open; how many more there are. */
function placesOf(inRecord: Hit[], inDocuments: DocumentHits | undefined): Pick<SourceRow, 'hits' | 'moreHits'> {
  const hits = [...(inDocuments?.hits ?? []), ...inRecord].slice(0, MOST_PLACES);
  return { hits, moreHits: (inDocuments?.count ?? 0) + inRecord.length - hits.length };
}

/** Where the record matched, apart from its title, which is lit itself. */
function recordHits(record: SourceRecord, sought: Sought): Hit[] {
  const at = (field: string, text: string | undefined): Hit[] => {
    const s = text && snippet(withoutMarkup(text), sought);
    return s ? [{ where: variableLabel(field), ...s }] : [];
  };
  const { title: _title, abstract, note, custom: _custom, ...rest } = record;
  const said = [
    ...at('abstract', abstract),
    ...at('note', note),
    ...NAME_VARIABLES.flatMap((v) => at(v, record[v]?.map(nameSpoken).join('; '))),
    ...Object.entries(rest).flatMap(([field, value]) =>
      typeof value === 'string' && !UNTOLD.has(field) ? at(field, value) : [],
    ),
  ];
  // Words within an identifier are told where they stand nowhere else.
  return said.length || !record.DOI ? said : at('DOI', record.DOI);
}

/** The best documents on a source, and how many match in all. */
interface DocumentHits {
  hits: Hit[];
  count: number;
}

/** For each source the documents on it that hold most of what is asked for: pages of its files, and what was written on it. */
async function findInDocuments(db: Db, q: Question, sought: Sought, ids: string[]): Promise<Map<string, DocumentHits>> {
  const lexemes = documentTsquery(q.compiled.leads, sought);
  if (!ids.length || !lexemes.any) return new Map();
  const w = sql`${q.scope.workspaceId}::uuid`;
  const any = sql`${lexemes.any}::tsquery`;
  const shown = Object.entries(DOCUMENTS.all).map(
    ([kind, { shown: of }]) => sql`select * from (${of(w, sql`h`)}) x where h.kind = ${kind}`,
  );
  const found = await rows(
    db,
    { source: text(), count: number, called: text(), file: orNull(text()), page: orNull(number), text: text() },
    sql`
    select u.id as source, h.count, t.called, t.file, t.page, t.text
    from unnest(${array(ids, 'uuid')}) with ordinality as u(id, place)
    cross join lateral (
      select d.kind, d.id, d.part, (count(*) over ())::int as count, row_number() over (
        order by (d.vector @@ ${lexemes.all}::tsquery) desc, ts_rank(d.vector, ${any}) desc, d.part, d.id) as place
      from (
        select p.* from source_files sf join documents p on p.workspace_id = ${w} and p.kind = 'page' and p.id = sf.file_id
          where sf.workspace_id = ${w} and sf.source_id = u.id and p.vector @@ ${any}
        union all select p.* from documents p where p.workspace_id = ${w} and p.source_id = u.id and p.vector @@ ${any}) d
      order by place limit ${MOST_PLACES}) h
    cross join lateral (${sql.join(shown, sql` union all `)}) t(called, file, page, text)
    order by u.place, h.place`,
  );
  const onPages = found.flatMap(({ source: sourceId, file: fileId }) => (fileId ? [{ sourceId, fileId }] : []));
  const numbers = await PAGE_NUMBERS.all(db, q.scope.workspaceId, onPages);
  const out = new Map<string, DocumentHits>();
  for (const { source, count, called, file, page, text } of found) {
    const s = snippet(text, sought);
    const of = out.get(source) ?? { hits: [], count };
    const place = file && page && placeWritten(citedPage(numbers({ sourceId: source, fileId: file }), page));
    const where = [called, place].filter(Boolean).join(', ');
    if (s) of.hits.push({ where, ...(file && { fileId: file }), ...(page && { page }), ...s });
    out.set(source, of);
  }
  return out;
}

/** Queries over documents: with any, and with all, of what is sought. @param leads prefixes of lexemes; one of them is enough */
export function documentTsquery(leads: string[], sought: Sought): { any: string; all: string } {
  const under = (term: (quote: (stem: string) => string) => string): string => {
    const each = leads.map((lead) => term((s) => `'${(lead + s).replaceAll("'", "''")}'`));
    return each.length > 1 ? `(${each.join(' | ')})` : each[0]!;
  };
  const terms = [
    ...[...sought.stems].map((s) => under((quote) => quote(s))),
    ...sought.prefixes.map((p) => under((quote) => `${quote(p)}:*`)),
    ...sought.phrases.map((p) => under((quote) => `(${p.map(quote).join(' <-> ')})`)),
  ];
  return { any: terms.join(' | '), all: terms.join(' & ') };
}
