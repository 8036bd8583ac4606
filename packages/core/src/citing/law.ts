/**
 * What styles do not say of cases and statutes, and the guides of the law ask for: the other reports of a case, a court's own
 * number in place of a report, which brackets the year stands in, the court, the section of a statute. Styles differ in
 * which variables they print; each is tried once with sources nobody has. What is given to a style in another variable is
 * decided before it prints (`forLaw`), what it cannot say at all is put into what it printed (`withLaw`).
 */
import {
  courtOfSeries,
  isCourt,
  isReportSeries,
  readReports,
  reportsToText,
  yearBeforeNumber,
  yearOf,
} from '../law/index.ts';
import type { CiteItem, SourceRecord } from '../source/index.ts';

/** What a style prints of cases and statutes. */
export interface LawForms {
  /** A number by itself behind its court, where there is no report. */
  number: boolean;
  /** What contains a statute, in brackets: where guides have the jurisdiction. */
  containerInBrackets: boolean;
  /** The section of a statute, without being asked for a place in it: with a word or sign for it, bare, or not at all. */
  section: Printed;
  /** A section as a place in a statute. */
  place: Printed;
  /** Whether the style writes in English: only for English do we know the word for a section. */
  isEnglish: boolean;
}
type Printed = 'with a word' | 'bare' | 'not';

const IN_1907 = { issued: { 'date-parts': [[1907]] } } as SourceRecord;
const NUMBERED: SourceRecord = { ...IN_1907, type: 'legal_case', title: 'Aa v Bb', number: '7319', authority: 'ZZQ' };
const ACT: SourceRecord = { ...IN_1907, type: 'legislation', title: 'Aa Act', 'container-title': 'QQJ' };

/**
 * @param isEnglish whether the style writes in English
 * @param print what the style makes of a record, as text: in the text, at this section of it, and in the list
 */
export function lawForms(
  isEnglish: boolean,
  print: (record: SourceRecord, section?: string) => [cited: string, listed: string],
): LawForms {
  const [number] = print(NUMBERED);
  const statute = print({ ...ACT, section: '7315' });
  return {
    number: /ZZQ\s7319/.test(number) && number.match(/1907/g)?.length === 1,
    containerInBrackets: statute.some((text) => text.includes('(QQJ)')),
    section: printed(statute),
    place: printed(print(ACT, '7315').slice(0, 1)),
    isEnglish,
  };
}

function printed(texts: string[]): Printed {
  const text = texts.find((t) => t.includes('7315'));
  if (!text) return 'not';
  return /(?:§|\p{L}\.?)\s?7315/u.test(text) && !/\b(?:QQJ|Act)\s7315/.test(text) ? 'with a word' : 'bare';
}

/** A provision is cited as a place in its statute, where the style does not print the section by itself. */
export function placeInStatute(record: SourceRecord, forms: LawForms): Pick<CiteItem, 'locator' | 'label'> {
  const { type, section } = record;
  if (!isStatute(type) || !section || forms.section !== 'not') return {};
  return { locator: forms.place === 'bare' && forms.isEnglish ? worded(section, record) : section, label: 'section' };
}

const isStatute = (type: string): boolean => type === 'legislation' || type === 'regulation';
/** Statutes whose sections have the sign for it (common practice); others have "s". */
const WITH_SIGN = /\b(?:U\.?\s?S\.?\s?C\.?|C\.?F\.?R\.?|USA?|United States|Germany|DE|Austria|AT)(?![\p{L}\d])/u;

/** A section with what stands before its number, where the style prints none. */
function worded(section: string, { jurisdiction = '', 'container-title': container = '' }: SourceRecord): string {
  if (!/^\d/.test(section)) return section;
  return `${WITH_SIGN.test(`${jurisdiction} ${container}`) ? '§' : 's'} ${section}`;
}

/** Where a case stands first: a report with its page, or a court with its own number. */
interface Place {
  series: string;
  volume?: string | undefined;
  page: string;
  /** A court's own number, which always has the year before it. */
  isNumber: boolean;
}

function placeOf(record: SourceRecord): Place | undefined {
  const { number, page, volume, authority, 'container-title': series } = record;
  // Older records hold a court's own number as report and page.
  if (series && !volume && page && (page === number || isCourt(series)) && !isReportSeries(series))
    return { series, page, isNumber: true };
  if (number && authority && /^\d+$/.test(number) && ((!series && !page) || isCourt(authority)))
    return { series: authority, page: number, isNumber: true };
  return series && page ? { series, volume, page, isNumber: false } : undefined;
}

/** The fields of a case or a statute as the style prints them; the others stand as they are. */
export function forLaw(record: SourceRecord, forms: LawForms): SourceRecord {
  if (isStatute(record.type)) {
    const { jurisdiction, section, 'container-title': container } = record;
    const named = jurisdiction && !container && forms.containerInBrackets;
    return {
      ...record,
      ...(named && { 'container-title': jurisdiction }),
      ...(section && forms.section === 'bare' && forms.isEnglish && { section: worded(section, record) }),
    };
  }
  if (record.type !== 'legal_case') return record;
  const place = placeOf(record);
  // Otherwise the number is a docket number, or the page repeated: neither is printed beside a report.
  const { number: _, ...rest } = record;
  if (!place) return record;
  if (!place.isNumber)
    return rest.authority && courtOfSeries(place.series, rest.authority) ? without(rest, 'authority') : rest;
  const { 'container-title': series, page: __, volume: ___, authority, ...bare } = rest;
  if (forms.number) return { ...bare, authority: place.series, number: place.page };
  const court = authority && authority !== place.series && authority !== series && { authority };
  return { ...bare, 'container-title': place.series, page: place.page, ...court };
}

function without<K extends keyof SourceRecord>(record: SourceRecord, field: K): SourceRecord {
  const { [field]: _, ...rest } = record;
  return rest as SourceRecord;
}

/** The reports behind the first one: with a court's own number, also the report that stands in the fields. */
function others(record: SourceRecord, place: Place): string {
  const told = record.parallel ? readReports(record.parallel) : [];
  const { 'container-title': series, volume, page } = record;
  const own = place.isNumber && series && page && series !== place.series;
  const year =
    own && yearOf(series, volume, yearIn(record)) === 'square' ? `[${yearIn(record)}]` : `(${yearIn(record)})`;
  const first = own ? [{ year, ...(volume && { volume }), 'container-title': series, page }] : [];
  return reportsToText([...first, ...told], ', ');
}

const yearIn = (record: SourceRecord): number | undefined => record.issued?.['date-parts']?.[0]?.[0];

/**
 * What a style printed, with what it left out of these sources and the guides ask for. Where a case is printed without its
 * report (as author and date, say), nothing is added.
 */
export function withLaw(html: string, records: SourceRecord[]): string {
  return records.reduce((text, record) => {
    if (record.type === 'legal_case') return withCase(text, record);
    // Some styles leave the comma of a container that is missing: "Theft Act, (1968)".
    return isStatute(record.type) ? text.replace(new RegExp(`,(?=\\s\\(${yearIn(record)}\\))`), '') : text;
  }, html);
}

/** Between two words of a citation: blanks, tags, a comma. */
const GAP = String.raw`(?:\s|<[^<>]*>|[.,]|&#160;)+`;

function withCase(html: string, record: SourceRecord): string {
  const place = placeOf(record);
  const found = place && placeIn(html, place, record);
  if (!found) return html;
  const year = yearIn(record);
  const named = { ...found, behind: withCourt(found.behind, record, place, year) };
  const around = year ? withYear(named, place, year) : named;
  const behind = withCourt(around.behind, record, place, year);
  // Where the style leaves out the full stops of one report, it does of all.
  const stops = !place.series.includes('.') || found.place.includes('.');
  const reports = stops ? others(record, place) : others(record, place).replaceAll('.', '');
  return [around.before, around.year, around.place, reports && `, ${escaped(reports)}`, behind].join('');
}

/** What was printed, split at the report of a case. */
interface Around {
  before: string;
  /** The year with its brackets and the blank behind it; empty where it does not stand there. */
  year: string;
  place: string;
  behind: string;
}

function placeIn(html: string, place: Place, record: SourceRecord): Around | undefined {
  const short = place.isNumber ? undefined : record['container-title-short'];
  const series = [place.series, ...(short ? [short] : [])].map(literally).join('|');
  const page = literally(/^\p{L}*\d+/u.exec(place.page)?.[0] ?? place.page);
  const volume = place.volume ? `(?:${literally(place.volume)}${GAP})?` : '';
  const year = yearIn(record);
  const before = year ? `(?<year>[[(]?\\b${year}[\\])]?${GAP})?` : '(?<year>)';
  const found = new RegExp(`${before}(?<place>${volume}(?:${series})${GAP}${page}(?:[-–]\\d+)?(?!\\d))`, 'u').exec(
    html,
  );
  if (!found) return undefined;
  return {
    before: html.slice(0, found.index),
    year: found.groups!.year ?? '',
    place: found.groups!.place!,
    behind: html.slice(found.index + found[0].length),
  };
}

/** Moves the year to where the series has it, with the right brackets: before the report, or after it. */
function withYear(around: Around, place: Place, year: number): Around {
  const form = place.isNumber ? 'square' : yearOf(place.series, place.volume, year);
  // Without brackets it is no part of the report, but stands where the style has it.
  if (!form || (around.year && !place.isNumber && !/^[[(]/.test(around.year))) return around;
  const brackets = new RegExp(`^${GAP}\\((?<held>[^()<>]*)\\)`).exec(around.behind);
  const held = brackets?.groups!.held ?? '';
  const court = held.replace(new RegExp(`\\s*\\b${year}$`), '').trim();
  const isBehind = held.endsWith(String(year));
  if (!around.year && (!isBehind || form === 'behind')) return around;
  const rest = around.behind.slice(brackets?.[0].length ?? 0);
  if (form === 'behind') return { ...around, year: '', behind: ` (${[court, year].filter(Boolean).join(' ')})${rest}` };
  const before = form === 'round' && !around.year ? around.before.replace(/,\s*$/, ' ') : around.before;
  const inFront = form === 'round' ? `(${year})` : place.isNumber ? yearBeforeNumber(place.series, year) : `[${year}]`;
  const behind = isBehind ? `${court && ` (${court})`}${rest}` : around.behind;
  return { ...around, before, year: `${inFront} `, behind };
}

/** The court before a year in brackets behind the report, where the style has left it out and the report does not tell. */
function withCourt(behind: string, { authority }: SourceRecord, place: Place, year: number | undefined): string {
  if (!authority || place.isNumber || courtOfSeries(place.series, authority) || !year) return behind;
  return behind.replace(
    new RegExp(`^(${GAP})\\(${year}\\)`),
    (_, gap: string) => `${gap}(${escaped(authority)} ${year})`,
  );
}

/** A pattern for the text as printed; full stops are optional, since some styles strip them. */
const literally = (text: string): string =>
  escaped(text)
    .replace(/[*+?^${}()|[\]\\]/g, '\\$&')
    .replaceAll('.', '\\.?');

const escaped = (text: string): string =>
  text.replaceAll('&', '&#38;').replaceAll('<', '&#60;').replaceAll('>', '&#62;');
