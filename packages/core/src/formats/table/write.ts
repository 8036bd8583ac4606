/** Records as a table (CSV after RFC 4180): a column for each field any of them has, the names those of CSL. */
import Papa from 'papaparse';
import {
  dateToEdtf,
  isDateVariable,
  isNameVariable,
  nameInverted,
  TEXT_VARIABLES,
  type DateValue,
  type Name,
  type SourceRecord,
} from '../../source/index.ts';
import type { Entry, Writable } from '../message.ts';
import { remainderOf } from '../remainder.ts';
import { FORMULA } from './guard.ts';
import { eachRow } from './read.ts';

const FIRST = [
  'title',
  'author',
  'issued',
  'container-title',
  'volume',
  'issue',
  'page',
  'publisher',
  'publisher-place',
];
const REST = 'custom';

export function* eachTableRow(sources: Writable): Generator<string, void> {
  const all = [...sources];
  const used = new Set(all.flatMap((s) => Object.keys(s.record)).filter((f) => f !== 'type' && f !== 'custom'));
  const others = [...used].filter((f) => !FIRST.includes(f)).sort((a, b) => place(a) - place(b));
  // By its headings the table is known again.
  const fields = ['type', 'title', ...FIRST.filter((f) => used.has(f) && f !== 'title'), ...others];
  if (all.some((s) => s.subjects.length)) fields.push('keyword');
  const rests = all.map((s) => restOf(s, fields));
  const some = rests.some(Boolean);
  const head = some ? [...fields, REST] : fields;
  yield written([head]);
  for (const [i, s] of all.entries())
    yield written([[...fields.map((f) => cellOf(s, f)), ...(some ? [rests[i] ?? ''] : [])]]);
}

/** Any rows as a table, the names of their values as its headings. */
export const tableOf = (rows: Record<string, string | number>[]): string =>
  `${Papa.unparse(rows, { escapeFormulae: FORMULA })}\r\n`;

const place = (field: string): number => (TEXT_VARIABLES as readonly string[]).indexOf(field);
const written = (rows: string[][]): string => `${Papa.unparse(rows, { escapeFormulae: FORMULA })}\r\n`;

function cellOf({ record, subjects }: Entry, field: string): string {
  if (field === 'keyword') return subjects.join('; ');
  const value = record[field as keyof SourceRecord];
  if (value === undefined) return '';
  if (isNameVariable(field)) return (value as Name[]).map(nameInverted).join('; ');
  if (isDateVariable(field)) return dateToEdtf(value as DateValue);
  return value as string;
}

function restOf(source: Entry, fields: string[]): string | undefined {
  const alone = written([fields]) + written([fields.map((f) => cellOf(source, f))]);
  const [back] = eachRow(alone);
  const remainder = remainderOf(source, back?.source);
  return remainder && JSON.stringify(remainder);
}
