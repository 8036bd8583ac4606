/**
 * Dates as CSL-JSON has them: `date-parts` of one or two [year, month?, day?], `season`, `circa`, `literal`. A negative
 * year is one before the common era as people count (−44 is 44 BC; CSL 1.0.2, "AD and BC"), where EDTF has a year 0;
 * a range that is open at its end has [0] for it. Reading takes ISO 8601-1 and the parts of ISO 8601-2 (EDTF) that CSL can hold, and the ways people write dates.
 */
export interface DateValue {
  'date-parts'?: number[][];
  season?: number;
  circa?: boolean;
  literal?: string;
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
  const open = /^([^/]+?)\s*(?:\/(?:\.\.)?|[–—])$/.exec(t);
  const begun = open && parseOne(open[1]!);
  if (begun && !begun.season) return { 'date-parts': [begun.parts, [0]], ...(begun.circa ? { circa: true } : {}) };
  const range = t.split(/\s*(?:\/|–|—|\bto\b)\s*/);
  if (range.length === 2 && !/^\d{1,4}\/\d{1,2}$/.test(t)) {
    const from = parseOne(range[0]!);
    const to = parseOne(range[1]!);
    if (from?.parts && to?.parts) {
      return { 'date-parts': [from.parts, to.parts], ...(from.circa || to.circa ? { circa: true } : {}) };
    }
  }
  const years = /^(\d{4})\s*-\s*(\d{4})$/.exec(t);
  if (years) return { 'date-parts': [[+years[1]!], [+years[2]!]] };
  const one = parseOne(t);
  if (!one) return { literal: t };
  return {
    'date-parts': [one.parts],
    ...(one.season ? { season: one.season } : {}),
    ...(one.circa ? { circa: true } : {}),
  };
}

interface One {
  parts: number[];
  season?: number;
  circa?: boolean;
}

function parseOne(raw: string): One | undefined {
  let t = raw.trim();
  let circa = false;
  const approx = /^(?:c\.|ca\.|circa)\s*/i.exec(t);
  if (approx) {
    circa = true;
    t = t.slice(approx[0].length);
  }
  if (/[~?%]$/.test(t)) {
    circa = true;
    t = t.slice(0, -1);
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
  return undefined;
}

function worded(t: string): One | undefined {
  const words = t.toLowerCase().replace(/[,.]/g, ' ').split(/\s+/).filter(Boolean);
  if (words.length < 2 || words.length > 3) return undefined;
  const month = words.findIndex((w) => monthOf(w) > 0);
  const year = words.find((w) => /^\d{4}$/.test(w));
  if (!year) return undefined;
  if (month < 0) {
    const season = words.length === 2 ? SEASONS.indexOf(words[0] === 'fall' ? 'autumn' : words[0]!) + 1 : 0;
    return season > 0 ? { parts: [+year], season } : undefined;
  }
  const day = words.find((w, i) => i !== month && /^\d{1,2}(st|nd|rd|th)?$/.test(w));
  if (words.length === 3 && !day) return undefined;
  return valid(+year, monthOf(words[month]!), day ? parseInt(day, 10) : undefined);
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
  if (!parts) return date.literal ?? '';
  const one = (p: number[], season?: number): string => {
    if (!p[0]) return '..';
    const tail = season ? [20 + season] : p.slice(1);
    return [pad(p[0] < 0 ? p[0] + 1 : p[0], 4), ...tail.map((n) => pad(n, 2))].join('-') + (date.circa ? '~' : '');
  };
  return parts.map((p) => one(p, parts.length === 1 ? date.season : undefined)).join('/');
}

/** The year of a date as a person reads it: "1872", "44 BC"; empty when it has none. */
export function yearShort(date: DateValue | undefined): string {
  const year = yearOf(date);
  return year === undefined ? '' : yearWords(year);
}

const yearWords = (year: number): string => (year < 0 ? `${-year} BC` : String(year));

const SHORT = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** The date as a person reads it: "18 Feb 1872", "1871–1874", "c. 1872", "spring 2001". */
export function dateShort(date: DateValue | undefined): string {
  if (!date) return '';
  const parts = date['date-parts'];
  if (!parts) return date.literal ?? '';
  const one = (p: number[]): string =>
    [p[2], p[1] ? SHORT[p[1] - 1] : undefined, p[0] ? yearWords(p[0]) : ''].filter((x) => x !== undefined).join(' ');
  const season = date.season && parts.length === 1 ? `${SEASONS[date.season - 1]} ` : '';
  return (date.circa ? 'c. ' : '') + season + parts.map(one).join('–');
}
