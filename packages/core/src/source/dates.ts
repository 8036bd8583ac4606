/**
 * Dates as CSL-JSON has them: `date-parts` of one or two [year, month?, day?], `season`, `circa`, `literal`. A negative
 * year is one before the common era as people count (−44 is 44 BC; CSL 1.0.2, "AD and BC"), where EDTF has a year 0;
 * a range that is open at its end has [0] for it. Reading takes ISO 8601-1 and the parts of ISO 8601-2 (EDTF) that CSL can hold, and the ways people write dates.
 */
import { edtfInWords, endsBefore, parseEdtf } from './edtf.ts';

export interface DateValue {
  'date-parts'?: number[][];
  season?: number;
  circa?: boolean;
  literal?: string;
  /** The date in EDTF, where it says more than the parts can hold; they are its bounds then. */
  edtf?: string;
}

const MONTHS = [
  'january',
  'february',
  'march',
  'april',
  'may',
  'june',
  'july',
  'august',
  'september',
  'october',
  'november',
  'december',
];
const SEASONS = ['spring', 'summer', 'autumn', 'winter'];

/** Reads a date; what cannot be read is kept as a literal, so nothing typed is lost. */
export function parseDate(text: string): DateValue | undefined {
  const t = text.trim();
  if (!t) return undefined;
  return readInterval(t) ?? readSingle(t) ?? parseEdtf(t) ?? { literal: t };
}

function readSingle(t: string): DateValue | undefined {
  const one = parseOne(t);
  return (
    one && {
      'date-parts': [one.parts],
      ...(one.season ? { season: one.season } : {}),
      ...(one.circa ? { circa: true } : {}),
    }
  );
}

/** An interval, or nothing: also when it ends before it begins. */
function readInterval(t: string): DateValue | undefined {
  const ends = intervalEnds(t);
  if (!ends) return undefined;
  const { from, to } = ends;
  const circa = from.circa || to?.circa ? { circa: true } : {};
  if (!to) return { 'date-parts': [from.parts, [0]], ...circa };
  return endsBefore(to.parts, from.parts) ? undefined : { 'date-parts': [from.parts, to.parts], ...circa };
}

/**
 * The ways a date of numbers may be meant, in EDTF: of three, day first or month first, which differs by country
 * ("2019-07-03"); "1903/04" as a month or as two years; a day named by today's. One where only one can be meant; none where
 * it is no such date.
 *
 * @param today as "2026-12-01"
 */
export function readingsOf(text: string, today?: string): string[] {
  const years = /^\s*(\d{2})(\d{2})\/(\d{2})\s*$/.exec(text);
  if (years && Number(years[3]) > Number(years[2]) && Number(years[3]) <= 12 && Number(years[3]) > 0)
    return [`${years[1]}${years[2]}-${years[3]}`, `${years[1]}${years[2]}/${years[1]}${years[3]}`];
  const from = DAYS_FROM_TODAY[text.trim().toLowerCase()];
  if (from !== undefined)
    return today ? [new Date(Date.parse(today) + from * 86_400_000).toISOString().slice(0, 10)] : [];
  const m = /^\s*(\d{1,2})([/.-])(\d{1,2})\2(\d{4})\s*$/.exec(text);
  if (!m) return [];
  const [a, b, year] = [Number(m[1]), Number(m[3]), Number(m[4])];
  const orders: [day: number, month: number][] =
    a === b
      ? [[a, b]]
      : [
          [a, b],
          [b, a],
        ];
  return orders
    .filter(([day, month]) => valid(year, month, day))
    .map(([day, month]) => `${m[4]}-${pad(month, 2)}-${pad(day, 2)}`);
}

const DAYS_FROM_TODAY: Record<string, number> = { yesterday: -1, today: 0, tomorrow: 1 };

/** What people write where there is no date (common practice). */
const UNDATED =
  /^(?:n\.?\s?d\.?|s\.?\s?a\.?|undated|no date|forthcoming|in press|in preparation|to appear|submitted|accepted)$/i;

/** What is wrong with a date that could not be read, in a sentence; nothing where it was read, or says that there is none. */
export function dateTrouble(text: string): string {
  const t = text.trim();
  if (!t || UNDATED.test(t) || readingsOf(t).length || parseDate(t)?.['date-parts']) return '';
  const [year] = /\b\d{4}\b/.exec(t) ?? [];
  const month =
    t
      .split(/[\s,.]+/)
      .map(monthOf)
      .find(Boolean) ?? Number(/^\d{4}-(\d{2})-\d{1,2}$/.exec(t)?.[1] ?? 0);
  const day = Number(
    (/^(?:\d{4}-\d{2}-)?(\d{1,2})(?:st|nd|rd|th)?\b/.exec(t) ?? /\b(\d{1,2})(?:st|nd|rd|th)?,? \d{4}/.exec(t))?.[1] ??
      0,
  );
  if (year && month >= 1 && month <= 12 && day > daysIn(Number(year), month))
    return `${MONTHS[month - 1]!.replace(/^./, (c) => c.toUpperCase())} ${year} has ${daysIn(Number(year), month)} days`;
  return year ? `Not read as a date; it counts as ${year}` : 'Not read as a date';
}

/** True when the text is an interval whose end is before its beginning. */
export function isBackward(text: string): boolean {
  const ends = intervalEnds(text.trim());
  return Boolean(ends?.to && endsBefore(ends.to.parts, ends.from.parts));
}

/** Both ends of what is written as an interval; an open one has no end. */
function intervalEnds(t: string): { from: One; to?: One } | undefined {
  const open = /^([^/]+?)\s*(?:\/(?:\.\.)?|(?:--|[–—])\s*(?:date|present)?|-\s*(?:date|present)?)$/i.exec(t);
  const begun = open && parseOne(open[1]!);
  if (begun && !begun.season) return { from: begun };
  const years = /^(\d{4})\s*-\s*(\d{4})$/.exec(t);
  const range = years ? years.slice(1) : t.split(/\s*(?:\/|–|—|--|\bto\b)\s*/);
  // "1903/04" is read as April 1903; with a number over 12, as in "1871/72", it is two years.
  const months = /^\d{1,4}\/(\d{1,2})$/.exec(t);
  if (range.length !== 2 || (months && (!/^\d{4}\/\d{2}$/.test(t) || Number(months[1]) <= 12))) return undefined;
  const [first, last] = range as [string, string];
  // "1998–99", "1871/72"
  const short = /^\d{4}$/.test(first) && /^\d{2}$/.test(last) ? first.slice(0, 2) + last : last;
  const from = parseOne(first);
  const to = parseOne(short);
  return from && to && !from.season && !to.season ? { from, to } : undefined;
}

interface One {
  parts: number[];
  season?: number;
  circa?: boolean;
}

function parseOne(raw: string): One | undefined {
  let t = raw.trim();
  // Signs a cataloguer puts around a date, and a full stop after it (common practice).
  const bracketed = /^(?:\(([^()]+)\)|\[([^[\],]+)\]|(?:[©ⓒpc]|cop\.?)\s*(\d{4}))$/.exec(t);
  if (bracketed) t = (bracketed[1] ?? bracketed[2] ?? bracketed[3]!).trim();
  if (/^\d{4}\.$/.test(t)) t = t.slice(0, -1);
  let circa = false;
  const approx = /^(?:c\.|ca\.|circa)\s*/i.exec(t);
  if (approx) {
    circa = true;
    t = t.slice(approx[0].length);
  }
  if (/[~?%]$/.test(t)) {
    circa = true;
    t = t.slice(0, -1).trimEnd();
  }
  const found = numeric(t) ?? worded(t);
  return found ? { ...found, ...(circa ? { circa } : {}) } : undefined;
}

function numeric(t: string): One | undefined {
  const before = /^(\d{1,4})\s*b\.?\s*c\.?(?:\s*e\.?)?$/i.exec(t);
  if (before && Number(before[1]) > 0) return { parts: [-Number(before[1])] };
  const iso = /^([-−]?\d{4})(?:[-/.](\d{1,2})(?:[-/.](\d{1,2})(?:T.*)?)?)?$/.exec(t);
  if (iso) {
    const astronomical = Number(iso[1]!.replace('−', '-'));
    const year = astronomical > 0 ? astronomical : astronomical - 1;
    const month = iso[2] ? Number(iso[2]) : undefined;
    if (month !== undefined && month >= 21 && month <= 24 && !iso[3]) return { parts: [year], season: month - 20 };
    return valid(year, month, iso[3] ? Number(iso[3]) : undefined);
  }
  const compact = /^(\d{4})(\d{2})(\d{2})$/.exec(t);
  if (compact) return valid(+compact[1]!, +compact[2]!, +compact[3]!);
  const dotted = /^(\d{1,2})\.\s?(\d{1,2})\.\s?(\d{4})$/.exec(t);
  if (dotted) return valid(+dotted[3]!, +dotted[2]!, +dotted[1]!);
  return undefined;
}

function worded(t: string): One | undefined {
  const words = t.toLowerCase().replace(/[,.]/g, ' ').split(/\s+/).filter(Boolean);
  if (words.length < 2 || words.length > 3) return undefined;
  const month = words.findIndex((w) => monthOf(w) > 0);
  const year = words.find((w) => /^\d{4}$/.test(w));
  if (!year) return undefined;
  if (month < 0) {
    const season = words.length === 2 ? seasonOf(words[0]!) : 0;
    return season > 0 ? { parts: [+year], season } : undefined;
  }
  const day = words.find((w, i) => i !== month && /^\d{1,2}(st|nd|rd|th)?$/.test(w));
  if (words.length === 3 && !day) return undefined;
  return valid(+year, monthOf(words[month]!), day ? parseInt(day, 10) : undefined);
}

/** 1 to 4 for a season, from spring to winter, else 0. */
export function seasonOf(word: string): number {
  const w = word.toLowerCase().replace(/\.$/, '');
  return SEASONS.indexOf(w === 'fall' ? 'autumn' : w) + 1;
}

/** 1 to 12 for an English month or its abbreviation of three letters or more, else 0. */
export function monthOf(word: string): number {
  const w = word.toLowerCase().replace(/\.$/, '');
  return w.length < 3 ? 0 : MONTHS.findIndex((m) => m.startsWith(w) || (w === 'sept' && m === 'september')) + 1;
}

function valid(year: number, month?: number, day?: number): One | undefined {
  if (month === undefined || month === 0) return { parts: [year] };
  if (month > 12) return undefined;
  if (day === undefined || day === 0) return { parts: [year, month] };
  if (day > daysIn(year, month)) return undefined;
  return { parts: [year, month, day] };
}

function daysIn(year: number, month: number): number {
  const y = year < 0 ? year + 1 : year;
  const leap = (y % 4 === 0 && y % 100 !== 0) || y % 400 === 0;
  return [31, leap ? 29 : 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31][month - 1]!;
}

/** The last day a date speaks of, as "2027-03-31"; nothing where it is open or has none. */
export function lastDayOf(date: DateValue | undefined): string | undefined {
  const parts = date?.['date-parts']?.at(-1);
  const [year, month = 12, day] = parts ?? [];
  if (!year || year < 0) return undefined;
  const last = day ?? new Date(Date.UTC(year, month, 0)).getUTCDate();
  return [String(year).padStart(4, '0'), String(month).padStart(2, '0'), String(last).padStart(2, '0')].join('-');
}

/** The year a source is filed under: the first year of the date, if it has one. */
export function yearOf(date: DateValue | undefined): number | undefined {
  const parts = date?.['date-parts']?.[0];
  if (parts?.[0] !== undefined) return parts[0];
  const digits = date?.literal && /\b(\d{4})\b/.exec(date.literal);
  return digits ? Number(digits[1]) : undefined;
}

const pad = (n: number, width: number): string => (n < 0 ? '-' : '') + String(Math.abs(n)).padStart(width, '0');

/** The date in EDTF (ISO 8601-2): "1872-02-18", "1871/1874", "1999/..", "1872~", "2001-21"; a literal stays as it is. */
export function dateToEdtf(date: DateValue): string {
  const parts = date['date-parts'];
  if (date.edtf !== undefined) return date.edtf;
  if (!parts) return date.literal ?? '';
  const one = (p: number[], season?: number): string => {
    if (!p[0]) return '..';
    const tail = season ? [20 + season] : p.slice(1);
    return [pad(p[0] < 0 ? p[0] + 1 : p[0], 4), ...tail.map((n) => pad(n, 2))].join('-') + (date.circa ? '~' : '');
  };
  return parts.map((p) => one(p, parts.length === 1 ? date.season : undefined)).join('/');
}

/** The year of a date as a person reads it: "1872", "44 BC", "1560s"; empty when it has none. */
export function yearShort(date: DateValue | undefined): string {
  if (date?.edtf !== undefined) return edtfInWords(date.edtf);
  const year = yearOf(date);
  return year === undefined ? '' : yearWords(year);
}

const yearWords = (year: number): string => (year < 0 ? `${-year} BC` : String(year));

const SHORT = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** The date as a person reads it: "18 Feb 1872", "1871–1874", "c. 1872", "spring 2001". */
export function dateShort(date: DateValue | undefined): string {
  if (!date) return '';
  const parts = date['date-parts'];
  if (date.edtf !== undefined) return edtfInWords(date.edtf);
  if (!parts) return date.literal ?? '';
  const one = (p: number[]): string =>
    [p[2], p[1] ? SHORT[p[1] - 1] : undefined, p[0] ? yearWords(p[0]) : ''].filter((x) => x !== undefined).join(' ');
  const season = date.season && parts.length === 1 ? `${SEASONS[date.season - 1]} ` : '';
  return (date.circa ? 'c. ' : '') + season + parts.map(one).join('–');
}
