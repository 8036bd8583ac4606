/** Records to RIS. What RIS cannot hold goes, as JSON, into a line U5. */
import { dateToEdtf, nameInverted, type SourceRecord, type TextVariable } from '../../source/index.ts';
import type { Entry, Writable } from '../message.ts';
import { remainderOf } from '../remainder.ts';
import { readRis, REMAINDER_MARK } from './read.ts';
import { TYPE_OF_KIND } from './tables.ts';

const TAG_ORDER: [string, TextVariable][] = [
  ['TI', 'title'],
  ['ST', 'title-short'],
  ['T2', 'container-title'],
  ['J2', 'container-title-short'],
  ['T3', 'collection-title'],
  ['VL', 'volume'],
  ['IS', 'issue'],
  ['NV', 'number-of-volumes'],
  ['ET', 'edition'],
  ['SE', 'section'],
  ['M3', 'genre'],
  ['PB', 'publisher'],
  ['CY', 'publisher-place'],
  ['DO', 'DOI'],
  ['UR', 'URL'],
  ['LA', 'language'],
  ['DB', 'archive'],
  ['DP', 'source'],
  ['CN', 'call-number'],
  ['ID', 'citation-key'],
  ['OP', 'original-title'],
  ['RI', 'reviewed-title'],
];

const oneLine = (text: string): string => text.replace(/\s*[\r\n]+\s*/g, ' ').trim();

/** Writes entries as RIS with CRLF ends, as the specification has them. */
export function* eachRisEntry(sources: Writable): Generator<string, void> {
  let before = '';
  for (const source of sources) {
    yield before + writeEntry(source);
    before = '\r\n';
  }
}

function writeEntry(source: Entry): string {
  const { record } = source;
  const kept = keptLines(record);
  const type = kept.find(([t]) => t === 'TY')?.[1] ?? TYPE_OF_KIND[record.type] ?? 'GEN';
  const lines: [string, string][] = [];
  const put = (tag: string, value: string | undefined): void => {
    const flat = value && oneLine(value);
    if (flat) lines.push([tag, flat]);
  };
  for (const [tag, variable] of Object.entries({
    AU: 'author',
    A2: 'editor',
    A3: 'collection-editor',
    A4: 'translator',
  } as const)) {
    for (const name of record[variable] ?? []) put(tag, risName(name));
  }
  if (record.issued?.['date-parts']) {
    const [y, m, d] = record.issued['date-parts'][0]!;
    put('PY', String(y));
    if (m) put('DA', [y, String(m).padStart(2, '0'), d ? String(d).padStart(2, '0') : ''].join('/') + '/');
  } else if (record.issued?.literal) put('PY', record.issued.literal);
  for (const [tag, variable] of TAG_ORDER) put(tagFor(tag, record), record[variable]);
  const pages = /^([^-–]+)[-–]+([^-–]+)$/.exec(record.page ?? '');
  if (pages) {
    put('SP', pages[1]);
    put('EP', pages[2]);
  } else put('SP', record.page ?? record['number-of-pages']);
  put('SN', record.ISSN);
  put('SN', record.ISBN);
  if (record.accessed?.['date-parts']?.length === 1) put('Y2', dateToEdtf(record.accessed).replaceAll('-', '/'));
  put('AB', record.abstract);
  put('N1', record.note);
  for (const subject of source.subjects) put('KW', subject);
  for (const [tag, value] of kept) if (tag !== 'TY') put(tag, value);
  const body = [`TY  - ${type}`, ...lines.map(([t, v]) => `${t}  - ${v}`)];
  const back = readRis([...body, 'ER  - '].join('\n')).sources[0];
  const remainder = remainderOf(source, back);
  if (remainder) body.push(`U5  - ${REMAINDER_MARK}${JSON.stringify(remainder)}`);
  return [...body, 'ER  - ', ''].join('\r\n');
}

function tagFor(tag: string, record: SourceRecord): string {
  if (tag === 'T2' && (record.type === 'book' || record.type === 'manuscript')) return 'BT';
  if (tag === 'T3' && (record.type === 'book' || record.type === 'manuscript')) return 'T2';
  return tag;
}

function keptLines(record: SourceRecord): [string, string][] {
  const kept = record.custom?.ris;
  if (!Array.isArray(kept)) return [];
  return kept.filter(
    (x): x is [string, string] =>
      Array.isArray(x) && typeof x[0] === 'string' && /^[A-Z][A-Z0-9]$/.test(x[0]) && typeof x[1] === 'string',
  );
}

function risName(name: Parameters<typeof nameInverted>[0]): string {
  if (name.literal) return name.literal;
  const family = [name['non-dropping-particle'], name.family].filter(Boolean).join(' ');
  const rest = [name.given, name.suffix].filter(Boolean).join(', ');
  return rest ? `${family}, ${rest}` : `${family},`;
}
