/**
 * RIS, and the dialects met in the wild: no ER, one space or none before the dash, lines wrapped without a tag,
 * repeated tags, old and new type codes, dates in PY, Y1 or DA. A line with a tag nobody knows is kept with the
 * record and written back.
 */
import {
  OTHERS,
  parseDate,
  parseName,
  type DateValue,
  type NameVariable,
  type SourceRecord,
  type TextVariable,
} from '../../source/index.ts';
import { cut } from '../../text/index.ts';
import { settleIdentifiers } from '../identifiers.ts';
import { collect, EMPTY, itemOf, type Item, type Message, type ReadResult, type ReadSource } from '../message.ts';
import { applyRemainder } from '../remainder.ts';
import { KIND_OF_TYPE, TEXT_TAGS, TYPE_OF_KIND } from './tables.ts';

interface Line {
  tag: string;
  value: string;
  line: number;
}

export const REMAINDER_MARK = 'csl ';
const PERSON_TAGS: Record<string, NameVariable> = {
  AU: 'author',
  A1: 'author',
  A2: 'editor',
  ED: 'editor',
  A3: 'collection-editor',
  A4: 'translator',
  TA: 'translator',
};

export const readRis = (text: string): ReadResult => collect(eachRis(text));

/** The entries and messages of a file as they are read. */
export function* eachRis(text: string): Generator<Item, void> {
  const messages: Message[] = [];
  let some = false;
  let entry: Line[] | undefined;
  let lineNumber = 0;
  function* finish(): Generator<Item, void> {
    some ||= messages.length > 0 || entry !== undefined;
    const lines = entry;
    entry = undefined;
    if (lines) yield itemOf(lines[0]!.line, () => readEntry(lines, messages));
    for (const message of messages.splice(0)) yield { message };
  }
  const tell = (severity: Message['severity'], rule: string, what: string, done: string): void =>
    void messages.push({ severity, rule, line: lineNumber, column: 1, what, done });

  for (let start = 0; start <= text.length;) {
    let end = text.indexOf('\n', start);
    if (end < 0) end = text.length;
    let raw = text.slice(start, text.charCodeAt(end - 1) === 13 && end > start ? end - 1 : end);
    start = end + 1;
    lineNumber += 1;
    if (raw.charCodeAt(0) === 0xfeff) raw = raw.slice(1);
    const tag = tagOf(raw);
    if (!tag) {
      const words = raw.trim();
      const last = entry?.at(-1);
      if (!words) continue;
      if (last) last.value += last.tag === 'AB' || last.tag === 'N2' || last.tag === 'N1' ? `\n${words}` : ` ${words}`;
      else if (!/^\d+\.?$/.test(words))
        tell('warning', 'stray-text', `Text outside any entry: “${cut(words, 60)}”`, 'passed over');
      continue;
    }
    if (tag.name === 'TY') {
      if (entry)
        tell(
          'warning',
          'missing-end',
          'A new entry begins before the last one ended (ER is missing)',
          'both were read',
        );
      yield* finish();
      entry = [{ tag: 'TY', value: tag.value, line: lineNumber }];
    } else if (tag.name === 'ER') {
      if (!entry) tell('warning', 'stray-end', 'An end of entry (ER) without its beginning', 'passed over');
      yield* finish();
    } else if (entry) {
      entry.push({ tag: tag.name, value: tag.value, line: lineNumber });
    } else {
      tell('warning', 'missing-type', 'An entry begins without its type (TY)', 'read as a document');
      entry = [
        { tag: 'TY', value: 'GEN', line: lineNumber },
        { tag: tag.name, value: tag.value, line: lineNumber },
      ];
    }
  }
  if (entry) tell('info', 'missing-end', 'The last entry does not end with ER', 'it was read');
  yield* finish();
  if (!some) yield { message: EMPTY };
}

/** A tag is two characters, one or more spaces, a dash: `TY  - JOUR`. Written out for speed. */
function tagOf(raw: string): { name: string; value: string } | undefined {
  const a = raw.charCodeAt(0);
  const b = raw.charCodeAt(1);
  if (a < 65 || a > 90 || !((b >= 65 && b <= 90) || (b >= 48 && b <= 57))) return undefined;
  let i = 2;
  while (i < 5 && raw.charCodeAt(i) === 32) i += 1;
  if (i === 2 || raw.charCodeAt(i) !== 45) return undefined;
  const next = raw.charCodeAt(i + 1);
  if (i + 1 < raw.length && next !== 32 && next !== 9) return undefined;
  return { name: raw.slice(0, 2), value: raw.slice(i + 1).trim() };
}

function readEntry(lines: Line[], messages: Message[]): ReadSource {
  const first = lines[0]!;
  const type = first.value.toUpperCase();
  const kind = KIND_OF_TYPE[type];
  const record: SourceRecord & Record<string, unknown> = { type: kind ?? 'document' };
  const source: ReadSource = { record, subjects: [], line: first.line };
  const kept: [string, string][] = [];
  const tell = (line: number, rule: string, what: string, done: string): void =>
    void messages.push({ severity: 'warning', rule, line, column: 1, what, done });
  if (!kind) {
    tell(
      first.line,
      'unknown-type',
      `The type “${first.value}” is not an RIS type`,
      'read as a document, the type kept',
    );
    kept.push(['TY', first.value]);
  } else if (TYPE_OF_KIND[kind] !== type) kept.push(['TY', type]);
  const dates: Line[] = [];
  let remainder: Line | undefined;
  for (let i = 1; i < lines.length; i += 1) {
    const { tag, value } = lines[i]!;
    if (!value) continue;
    const person = kind === 'legal_case' && tag === 'A2' ? undefined : PERSON_TAGS[tag];
    if (person) addName(record, person, value);
    else if (tag === 'KW' || tag === 'DE') source.subjects.push(value);
    else if (tag === 'PY' || tag === 'Y1' || tag === 'DA') dates.push(lines[i]!);
    else if (tag === 'Y2' || tag === 'RD') setOnce(record, 'accessed', risDate(value), tag, value, kept);
    else if (tag === 'SP' || tag === 'EP') continue;
    else if (tag === 'SN') readStandardNumber(record, value, kept);
    else if (tag === 'N1') record.note = record.note ? `${record.note}\n${value}` : value;
    else if (tag === 'U5' && value.startsWith(REMAINDER_MARK)) remainder = lines[i];
    else if (tag === 'DO' || tag === 'DI') setOnce(record, 'DOI', value, tag, value, kept);
    else readText(record, tag, value, kept);
  }
  readPages(record, lines, kept);
  readDates(record, dates, kept, tell);
  settleIdentifiers(record);
  if (kept.length) record.custom = { ris: kept };
  if (remainder && !applyRemainder(source, remainder.value.slice(REMAINDER_MARK.length))) {
    tell(
      remainder.line,
      'broken-remainder',
      'The line U5 with further fields is damaged',
      'the rest of the entry was read',
    );
  }
  return source;
}

function addName(record: SourceRecord, variable: NameVariable, value: string): void {
  const names = (record[variable] ??= []);
  for (const part of value.includes(';') ? value.split(';') : [value]) {
    if (part.trim()) names.push(readName(part.trim()));
  }
}

/** RIS writes "Family, Given, Suffix"; a name without a comma is an institution or a single name. */
function readName(value: string): ReturnType<typeof parseName> {
  if (/^(?:others|(?:et|and) al\.?)$/i.test(value)) return OTHERS;
  if (!value.includes(',')) return { literal: value };
  return parseName(value.replace(/,\s*$/, ''));
}

function setOnce(
  record: SourceRecord,
  field: string,
  value: unknown,
  tag: string,
  raw: string,
  kept: [string, string][],
): void {
  const fields = record as Record<string, unknown>;
  if (fields[field] === undefined && value !== undefined) fields[field] = value;
  else if (fields[field] !== value) kept.push([tag, raw]);
}

function readText(record: SourceRecord, tag: string, value: string, kept: [string, string][]): void {
  const variable = variableFor(tag, record);
  if (!variable) kept.push([tag, value]);
  else if (record[variable] === undefined) record[variable] = value;
  else if (record[variable] !== value) {
    const isTitle = (tag === 'TI' || tag === 'T1') && variable === 'title';
    if (isTitle && record.custom === undefined) kept.push([tag, value]);
    else if (tag === 'JO' && record['container-title-short'] === undefined) record['container-title-short'] = value;
    else kept.push([tag, value]);
  }
}

/** What a tag means depends, for a few, on the type of the entry. */
function variableFor(tag: string, record: SourceRecord): TextVariable | undefined {
  const kind = record.type;
  if (kind === 'book' || kind === 'manuscript') {
    if (tag === 'BT') return 'title';
    if (tag === 'T2') return 'collection-title';
  }
  if (kind === 'thesis' && tag === 'M3') return 'genre';
  if (kind === 'legal_case' && tag === 'PB') return 'authority';
  // A case has no editor: its second "author" is the reporter it is printed in (common practice).
  if (kind === 'legal_case' && tag === 'A2') return 'container-title';
  if (
    (kind === 'report' || kind === 'patent' || kind === 'standard' || kind === 'legislation') &&
    (tag === 'IS' || tag === 'M1')
  )
    return 'number';
  if (kind === 'paper-conference' && tag === 'C1') return 'event-place';
  return TEXT_TAGS[tag];
}

function readStandardNumber(record: SourceRecord, value: string, kept: [string, string][]): void {
  for (const part of value.split(/\s*[;,]\s*|\s+(?=(?:97[89])?[\d-]{8,})/)) {
    const digits = part.replace(/[^\dXx]/g, '');
    const field = digits.length === 8 ? 'ISSN' : digits.length === 10 || digits.length === 13 ? 'ISBN' : undefined;
    if (!field) kept.push(['SN', part]);
    else if (record[field] === undefined) record[field] = part.replace(/\s*\((?:print|electronic|online|e|p)\)/i, '');
    else kept.push(['SN', part]);
  }
}

function readPages(record: SourceRecord, lines: Line[], kept: [string, string][]): void {
  const [start, ...starts] = lines.filter((l) => l.tag === 'SP' && l.value).map((l) => l.value);
  const [end, ...ends] = lines.filter((l) => l.tag === 'EP' && l.value).map((l) => l.value);
  for (const other of starts) kept.push(['SP', other]);
  for (const other of ends) kept.push(['EP', other]);
  if (record.type === 'book' || record.type === 'thesis') {
    if (start && !end) record['number-of-pages'] = start;
    else if (start || end)
      kept.push(
        ...([
          ['SP', start],
          ['EP', end],
        ].filter((x) => x[1]) as [string, string][]),
      );
    return;
  }
  if (start && end && end !== start && !start.includes('-') && !start.includes('–')) record.page = `${start}-${end}`;
  else if (start ?? end) {
    record.page = start ?? end;
    if (start && end && !start.endsWith(end)) kept.push(['EP', end]);
  }
}

type Tell = (line: number, rule: string, what: string, done: string) => void;

/** PY is the year, DA the fuller date, Y1 either; the fullest one that agrees with the others is the date. */
function readDates(record: SourceRecord, dates: Line[], kept: [string, string][], tell: Tell): void {
  let best: DateValue | undefined;
  for (const { tag, value, line } of dates) {
    const date = risDate(value);
    if (!date) continue;
    if (date.literal) tell(line, 'unclear-date', `The date “${value}” (${tag}) could not be read`, 'kept as it stands');
    if (!best || fullness(date) > fullness(best)) best = date;
  }
  if (best) record.issued = best;
  for (const { tag, value } of dates) {
    const date = risDate(value);
    const year = date?.['date-parts']?.[0]?.[0];
    const other = /^\d{4}\/\d{0,2}\/\d{0,2}\/(.+)$/.exec(value)?.[1];
    if ((year !== best?.['date-parts']?.[0]?.[0] && value !== best?.literal) || (other && !date?.season))
      kept.push([tag, value]);
  }
}

const fullness = (d: DateValue): number =>
  d['date-parts'] ? d['date-parts'].flat().length + (d.season ? 0.5 : 0) : 0.1;

/** RIS dates are YYYY/MM/DD/other, each but the year may be empty; other ways of writing them are read too. */
function risDate(value: string): DateValue | undefined {
  const m = /^(\d{4})\/(\d{0,2})\/(\d{0,2})(?:\/(.*))?$/.exec(value) ?? /^(\d{4})\/(\d{1,2})$/.exec(value);
  if (!m) return parseDate(value.replace(/\/+$/, ''));
  const [, y, mo, d, other] = m;
  if (!Number(mo) && other) {
    const season = parseDate(`${other} ${y}`);
    if (season?.['date-parts']) return season;
  }
  return parseDate([y, mo, d].filter((p) => p && Number(p)).join('-'));
}
