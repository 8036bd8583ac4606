/** Tables (CSV after RFC 4180, with commas, semicolons or tabs) as records: a row an entry. */
import Papa from 'papaparse';
import {
  findKinds,
  isDateVariable,
  isFieldValue,
  isKind,
  isNameVariable,
  isTextVariable,
  parseDate,
  parseName,
  personOf,
  type Kind,
  type Name,
  type SourceRecord,
} from '../../source/index.ts';
import { shortBlanks } from '../../text/index.ts';
import { settleIdentifiers } from '../identifiers.ts';
import { EMPTY, tryEntry, type Item, type ReadSource } from '../message.ts';
import { applyRemainder } from '../remainder.ts';
import { columnsOf, type ColumnField, type Columns } from './columns.ts';
import { separatorOf } from './detect.ts';
import { unguarded } from './guard.ts';

export interface Preview {
  headings: string[];
  /** The first rows, as they stand. */
  rows: string[][];
  columns: Columns;
}

/** The headings of a table, what they are taken for, and its first rows. */
export function previewTable(text: string, most = 5): Preview {
  const [head = [], ...rest] = rowsOf(text, most + 1).map((r) => r.cells);
  const headings = headingsOf(head);
  return { headings, rows: rest, columns: columnsOf(headings) };
}

interface Row {
  cells: string[];
  line: number;
}

function rowsOf(text: string, most = Infinity): Row[] {
  const body = text.replace(/^\uFEFF/, '');
  const rows: Row[] = [];
  let line = 1;
  let from = 0;
  Papa.parse<string[]>(body, {
    delimiter: separatorOf(body) ?? '',
    step: ({ data, meta }, parser) => {
      const at = line;
      line += body.slice(from, meta.cursor).match(/\r\n|\n|\r/g)?.length ?? 0;
      from = meta.cursor;
      if (data.some((cell) => cell.trim())) rows.push({ cells: data.map(plain), line: at });
      if (rows.length >= most) parser.abort();
    },
  });
  return rows;
}

const plain = (cell: string): string => unguarded(shortBlanks(cell.trim()));

/** Headings that stand twice are told apart. */
function headingsOf(head: string[]): string[] {
  const seen = new Map<string, number>();
  return head.map((h, i) => {
    const name = h || `Column ${i + 1}`;
    const n = (seen.get(name) ?? 0) + 1;
    seen.set(name, n);
    return n > 1 ? `${name} (${n})` : name;
  });
}

/** @param columns what each heading is; by the headings where it is not said */
export function* eachRow(text: string, columns?: Columns): Generator<Item, void> {
  const [head, ...rows] = rowsOf(text);
  const headings = headingsOf(head?.cells ?? []);
  const fields = columns ?? columnsOf(headings);
  if (!rows.length) yield { message: EMPTY };
  for (const row of rows) {
    const { given, message } = tryEntry(row.line, () => readRow(row, headings, fields));
    if (message) yield { message };
    else if (given.told || Object.keys(given.source.record).some((k) => k !== 'type' && k !== 'custom'))
      yield { source: given.source };
    else
      yield {
        message: {
          severity: 'warning',
          rule: 'empty-row',
          line: row.line,
          column: 1,
          what: 'A row fills no field of a record',
          done: 'left out; the others were read',
        },
      };
    if (row.cells.length > headings.length)
      yield {
        message: {
          severity: 'warning',
          rule: 'long-row',
          line: row.line,
          column: 1,
          what: `A row has ${row.cells.length} cells under ${headings.length} headings`,
          done: 'what is beyond the headings was kept beside the record',
        },
      };
  }
}

function readRow({ cells, line }: Row, headings: string[], fields: Columns): { source: ReadSource; told: boolean } {
  const record: Partial<SourceRecord> = {};
  const subjects: string[] = [];
  const kept: Record<string, string> = {};
  let kind: Kind | undefined;
  let rest: string | undefined;
  cells.forEach((cell, i) => {
    if (!cell) return;
    const heading = headings[i] ?? `Column ${i + 1}`;
    const field: ColumnField = fields[heading] ?? '';
    if (field === 'custom' && cell.startsWith('{')) rest = cell;
    else if (field === 'type') {
      kind = isKind(cell) ? cell : findKinds(cell)[0];
      if (!kind) kept[heading] = cell;
    } else if (field === 'keyword') subjects.push(...listed(cell));
    else if (isTextVariable(field)) record[field] = record[field] ? `${record[field]}; ${cell}` : cell;
    else if (isNameVariable(field)) record[field] = [...(record[field] ?? []), ...namesIn(cell)];
    else if (isDateVariable(field)) {
      const date = parseDate(cell);
      if (date && isFieldValue(field, date)) record[field] = date;
    } else kept[heading] = cell;
  });
  if (Object.keys(kept).length) record.custom = { table: kept };
  const source: ReadSource = {
    record: { ...record, type: kind ?? guessed(record) },
    subjects: [...new Set(subjects)],
    line,
  };
  settleIdentifiers(source.record);
  if (rest) applyRemainder(source, rest);
  return { source, told: kind !== undefined };
}

const listed = (cell: string): string[] =>
  cell
    .split(/\s*[;|\n]\s*/)
    .flatMap((s) => (/[;|\n]/.test(cell) ? [s] : s.split(/\s*,\s*/)))
    .filter(Boolean);

/** Names between semicolons, bars or lines; with none of these, between "and"s, or commas where no name is inverted. */
function namesIn(cell: string): Name[] {
  const parts = /[;|\n]/.test(cell) ? cell.split(/\s*[;|\n]\s*/) : cell.split(/\s+(?:and|&)\s+/);
  const single = parts.length === 1 ? parts[0]!.split(/\s*,\s*/) : [];
  // "Runa Halvard, Ines Vance" names two; "Halvard, Runa" one.
  const list = single.length > 1 && single.every((p) => /\S\s+\S/.test(p)) ? single : parts;
  return list.filter(Boolean).map((p) => (/,/.test(p) ? parseName(p) : personOf(p)));
}

function guessed(record: Partial<SourceRecord>): Kind {
  if (record.authority) return 'legal_case';
  if (record['container-title']) return record.ISBN ? 'chapter' : 'article-journal';
  if (record.ISBN || record.publisher) return 'book';
  if (record.DOI) return 'article-journal';
  return record.URL ? 'webpage' : 'document';
}
