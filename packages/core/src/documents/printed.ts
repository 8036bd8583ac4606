/** What is printed at the front of a document of its date and of the periodical it stands in. */
import type { DateValue } from '../source/index.ts';

/** Months by the first letters of their names in English, German, French, Spanish, Italian, Portuguese and Dutch. */
const MONTHS: [month: number, names: RegExp][] = [
  [1, /^(?:jan|gen|ene)/],
  [2, /^(?:feb|fév|fev)/],
  [3, /^(?:mar|mär|maart|mrt)/],
  [4, /^(?:apr|avr|abr)/],
  [5, /^(?:may|mai|mag|mei)/],
  [6, /^(?:jun|juin|giu)/],
  [7, /^(?:jul|juil|lug)/],
  [8, /^(?:aug|aoû|aou|ago)/],
  [9, /^(?:sep|set)/],
  [10, /^(?:oct|okt|ott|out)/],
  [11, /^(?:nov)/],
  [12, /^(?:dec|dez|déc|dic)/],
];
const NAMES =
  'jan(?:uary|uar|vier|uari|eiro)?|genn?aio|enero|feb(?:ruary|ruar|braio|rero|ruari)?|fév(?:rier)?|fevereiro|mar(?:ch|s|zo|ço)?|märz|maart|apr(?:il|ile)?|avril|abril|may|mai|maggio|mayo|maio|mei|june?|juni|juin|giugno|junio|junho|july?|juli|juillet|luglio|julio|julho|aug(?:ust|ustus)?|août|agosto|sept?(?:ember|embre|iembre)?|settembre|setembro|o[ck]t(?:ober|obre|ubre)?|ottobre|outubro|nov(?:ember|embre|iembre|embro)?|de[cz](?:ember|embre|embro)?|déc(?:embre)?|dicembre|diciembre';
const YEAR = '(1[5-9]\\d\\d|20\\d\\d)';
const DAY = '(\\d{1,2})(?:st|nd|rd|th|er|\\.|º)?';

/** Each pattern with what its groups are, in order. */
const PATTERNS: [RegExp, ('y' | 'm' | 'd' | 'n')[]][] = [
  [new RegExp(`\\b${YEAR}([-/.])(0?[1-9]|1[0-2])\\2(0?[1-9]|[12]\\d|3[01])\\b`, 'iu'), ['y', 'n', 'm', 'd']],
  [new RegExp(`\\b(0?[1-9]|[12]\\d|3[01])\\.(0?[1-9]|1[0-2])\\.${YEAR}\\b`, 'iu'), ['d', 'm', 'y']],
  [new RegExp(`(?<![\\d.])${DAY}\\s*(?:de |of )?(${NAMES})\\.?,?\\s*(?:de |of )?${YEAR}\\b`, 'iu'), ['d', 'm', 'y']],
  [new RegExp(`(?<!\\p{L})(${NAMES})\\.?\\s+${DAY},?\\s+${YEAR}\\b`, 'iu'), ['m', 'd', 'y']],
  [new RegExp(`(?<!\\p{L})(${NAMES})\\.?,?\\s*(?:de |of )?${YEAR}\\b`, 'iu'), ['m', 'y']],
  // Which of the two is the month differs by country: the year alone is sure.
  [new RegExp(`(?<!\\d)(?:0?[1-9]|[12]\\d|3[01])/(?:0?[1-9]|[12]\\d|3[01])/${YEAR}\\b`), ['y']],
  [/(1[5-9]\d\d|20\d\d)\s*年\s*(?:(\d{1,2})\s*月)?\s*(?:(\d{1,2})\s*日)?/u, ['y', 'm', 'd']],
];

/** The first date of a text that names at least a month, and where it stands. */
export function dateIn(text: string): { date: DateValue; text: string } | undefined {
  for (const [pattern, groups] of PATTERNS) {
    const m = pattern.exec(text);
    if (!m) continue;
    const part = (g: 'y' | 'm' | 'd'): string | undefined => m[groups.indexOf(g) + 1];
    const year = Number(part('y'));
    const named = part('m')?.toLowerCase();
    const month =
      named && (/^\d+$/.test(named) ? Number(named) : (MONTHS.find(([, names]) => names.test(named))?.[0] ?? 0));
    const day = groups.includes('d') ? Number(part('d') ?? 0) : 0;
    const parts = [year, ...(month ? [month, ...(day && day <= 31 ? [day] : [])] : [])];
    return { date: { 'date-parts': [parts] }, text: m[0] };
  }
  return undefined;
}

/** What stands before a date that is not that of the work. */
const OTHER_DATE =
  /(?:accessed|retrieved|received|revised|submitted|modified|checked|printed|abgerufen|consulté)\W*(?:on|in|am|le|the)?\W*$/i;

/** A piece of the front that states the date of the work: little more than the date stands in it. */
export function statedDate(text: string): DateValue | undefined {
  const found = dateIn(text);
  if (found) {
    const at = text.indexOf(found.text);
    if (OTHER_DATE.test(text.slice(0, at))) return statedDate(text.slice(at + found.text.length));
    const rest = text.replace(found.text, ' ').replace(/\([^()]*\)/g, ' ');
    return rest
      .trim()
      .split(/\s+/)
      .filter((w) => /\p{L}{2}/u.test(w)).length <= 9
      ? found.date
      : undefined;
  }
  // A year by itself, or behind a place: "Sallow, 2022".
  const year = /^(?:\p{Lu}[\p{L} -]{2,30},\s*)?\(?(1[89]\d\d|20\d\d)\)?\.?$/u.exec(text.trim());
  return year ? { 'date-parts': [[Number(year[1])]] } : undefined;
}

/** The year of a notice of copyright, or of the stamp of a preprint archive. */
export function noticeYear(text: string): number | undefined {
  const notice =
    /(?:©|\(c\)|copyright)\s{0,5}(?:©|\(c\))?\s{0,5}(?:by\s{1,5})?(?:the\s{1,5})?(?:authors?(?:\(s\))?,?\s{0,5})?(1[89]\d\d|20\d\d)\b/i.exec(
      text,
    ) ?? /\barxiv:\S{1,60}\s{0,5}(?:\[[^\]]{0,60}\])?\s{1,5}\d{1,2}\s+\p{L}{3}\p{L}*\s+(19\d\d|20\d\d)/iu.exec(text);
  return notice ? Number(notice[1]) : undefined;
}

export interface CitationLine {
  container?: string;
  volume?: string;
  issue?: string;
  page?: string;
  year?: number;
}

const PAGES =
  /(?:\bpp?\.?|\bpages?|\bS\.|\bSeiten|[:,;]|\bpágs?\.)\s*([A-Z]?\d{1,6})\s*[–—-]{1,2}\s*([A-Z]?\d{1,6})(?!\d)/iu;

/** "Coastal Processes 12(3), 101–118, 2014" and its kin: at least the periodical, a volume and a year. */
export function citationLine(text: string): CitationLine | undefined {
  const t = text.replace(/\s+/g, ' ').trim();
  if (t.length > 200) return undefined;
  const volume =
    /\bvol(?:ume|\.)?\s*(\d{1,4})\b/i.exec(t) ??
    /(?<=[\p{L}.,)] )(\d{1,4})\s*\(\d{1,4}(?:[–-]\d+)?\)/u.exec(t) ??
    /(?<=[12]\d\d\d;\s?)(\d{1,4})\b/.exec(t) ??
    /(?<=[\p{L}.)],? )(\d{1,4})(?=,\s*\d+\s*[–-]\s*\d+)/u.exec(t);
  if (!volume || Number(volume[1]) === 0) return undefined;
  const after = t.slice(volume.index + volume[0].search(/\d/) + volume[1]!.length);
  const bracket = /^\s*\((\d{1,3}(?:[–-]\d+)?)\)/.exec(after)?.[1];
  const issue = bracket ?? /(?:\bno\.?|\bissue|\bn[º°]|\bnúm\.?|\bnumber|\bheft)\s*(\d{1,4}(?:[–-]\d+)?)/i.exec(t)?.[1];
  const year = /(?<![\d–-])(1[89]\d\d|20\d\d)(?![\d–-])/.exec(t)?.[1];
  const pages = PAGES.exec(after.replace(/^\s*\(\d{1,4}(?:[–-]\d+)?\)/, ''));
  if (!year || (!pages && !issue)) return undefined;
  const begin = Math.min(
    volume.index,
    t.search(/\b(?:vol|1[89]\d\d|20\d\d)\b/i) < 0 ? Infinity : t.search(/\b(?:vol|1[89]\d\d|20\d\d)\b/i),
  );
  const container = t
    .slice(0, begin)
    .replace(/^.*\b(?:published in|appeared in|article in|accepted for|in:)\s+(?:the\s+)?/i, '')
    .replace(/[\s,.;:(–-]+$/, '')
    .trim();
  if (!/^\p{Lu}[\p{L}\s.,&:’'-]{2,90}$/u.test(container)) return undefined;
  return {
    container,
    volume: volume[1]!,
    ...(issue && Number(issue) !== 0 ? { issue } : {}),
    ...(pages && increasing(pages[1]!, pages[2]!) ? { page: `${pages[1]}-${pages[2]}` } : {}),
    year: Number(year),
  };
}

/** "101–118", and "101–18" for the same. */
const increasing = (from: string, to: string): boolean =>
  to.length < from.length || Number(from.replace(/\D/g, '')) <= Number(to.replace(/\D/g, ''));
