/**
 * Dates of EDTF levels 1 and 2 (ISO 8601-2) that say more than CSL's parts can hold: digits left open, sets, seasons
 * beyond the four, years of more than four digits. The bounds become the parts, the text itself stays in `edtf`.
 */
import edtf from 'edtf';
import type { DateValue } from './dates.ts';

/** What only EDTF writes; anything else is not asked of the library. */
const TELLS =
  /^[[{]|^Y-?\d|^-?[\dX]*X|-XX\b|(?:^|\/)-?\d{4}-(?:2[1-9]|3\d|4[01])(?:\/|$)|\d[?~%]-|-[?~%]|^[?~%]|^-?\d{1,4}S\d|^\.?\.?\//;
/** One of a set, or all of it. */
const SETS = /^([[{])(.*)[\]}]$/;
const SEASON = /^-?\d{4}-(?:2[1-9]|3\d|4[01])$/;
const ALLOWED = /^[-\dXYES?~%.,/ TZ:[\]{}]{2,80}$/;
/** Beyond it a year is no date of a source, nor a number the database holds. */
const LATEST = 1_900_000_000;

interface Parsed {
  values: number[];
  min: number | null;
  max: number | null;
}

/** The date, or nothing when the text is not of these levels or not sound. */
export function parseEdtf(text: string): DateValue | undefined {
  if (!ALLOWED.test(text) || !TELLS.test(text) || /^X{4}/.test(text)) return undefined;
  const [from, to, more] = text.split('/');
  if (to !== undefined && more === undefined) return interval(text, from!, to);
  const span = spanOf(text);
  if (!span) return undefined;
  const parts = common(span.from, span.to);
  const rest = /[?~%]/.test(text) ? { circa: true } : {};
  return Object.keys(rest).length && text.replace(/[?~%]/g, '') === plain(parts)
    ? { 'date-parts': parts, ...rest }
    : { 'date-parts': parts, ...rest, edtf: text };
}

const plain = (parts: number[][]): string =>
  parts.length > 1 ? '' : parts[0]!.map((n, i) => String(n).padStart(i ? 2 : 4, '0')).join('-');

function interval(text: string, from: string, to: string): DateValue | undefined {
  const begin = /^(?:\.\.)?$/.test(from) ? undefined : spanOf(from);
  const end = /^(?:\.\.)?$/.test(to) ? undefined : spanOf(to);
  if ((!begin && !/^(?:\.\.)?$/.test(from)) || (!end && !/^(?:\.\.)?$/.test(to)) || (!begin && !end)) return undefined;
  if (begin && end && endsBefore(end.to, begin.from)) return undefined;
  const circa = /[?~%]/.test(text) ? { circa: true } : {};
  const parts = begin ? [begin.from, end ? end.to : [0]] : [end!.to];
  return { 'date-parts': parts, ...circa, edtf: text };
}

/** Whether a ends before b begins; parts not given are as wide as they can be. */
export function endsBefore(a: number[], b: number[]): boolean {
  const [y, m, d] = [a[0]! - b[0]!, (a[1] ?? 12) - (b[1] ?? 1), (a[2] ?? 31) - (b[2] ?? 1)];
  return (y || m || d) < 0;
}

/** The first and last day or month or year the text may mean, each as [year, month?, day?] of CSL. */
function spanOf(text: string): { from: number[]; to: number[] } | undefined {
  const set = SETS.exec(text);
  if (set) {
    const spans = set[2]!
      .split(/,|\.\./)
      .filter((m) => m.trim())
      .map((m) => spanOf(m.trim()));
    if (!spans.length || !spans.every((s) => s !== undefined)) return undefined;
    return {
      from: spans.map((s) => s.from).reduce((a, b) => (endsBefore(b, a) ? b : a)),
      to: spans.map((s) => s.to).reduce((a, b) => (endsBefore(a, b) ? b : a)),
    };
  }
  let parsed: Parsed;
  try {
    parsed = edtf(text) as Parsed;
  } catch {
    return undefined;
  }
  const { values } = parsed;
  if (/^Y|S\d+$/.test(text)) {
    const year = values[0]!;
    if (Math.abs(year) > LATEST) return undefined;
    return { from: [ofCsl(year)], to: [ofCsl(year)] };
  }
  if (!/X/.test(text) && !SEASON.test(text)) {
    const day = values.map((v, i) => (i === 0 ? ofCsl(v) : i === 1 ? v + 1 : v)).slice(0, 3);
    return { from: day, to: day };
  }
  const [min, max] = [parsed.min, parsed.max].map((ms) => (Number.isFinite(ms) ? new Date(ms!) : undefined));
  if (!min && !max) return undefined;
  const of = (d: Date): number[] =>
    [ofCsl(d.getUTCFullYear()), d.getUTCMonth() + 1, d.getUTCDate()].slice(0, precision(text));
  return { from: of(min ?? max!), to: of(max ?? min!) };
}

/** How many parts of the date are given in full. */
function precision(text: string): number {
  const parts = text.replace(/[?~%]/g, '').replace(/^-/, '').split('-');
  const open = parts.findIndex((p) => /X/.test(p));
  return Math.max(1, open < 0 ? parts.length : open);
}

/** EDTF has a year 0, CSL does not. */
const ofCsl = (year: number): number => (year > 0 ? year : year - 1);

function common(from: number[], to: number[]): number[][] {
  return from.join() === to.join() ? [from] : [from, to];
}

/** The words for what the parts do not say: "1560s", "16th century", "1667 or 1668"; else the EDTF itself. */
export function edtfInWords(text: string): string {
  const decade = /^(\d{3})X$/.exec(text);
  if (decade) return `${decade[1]}0s`;
  const century = /^(\d{2})XX$/.exec(text);
  if (century) return ordinal(Number(century[1]) + 1) + ' century';
  const set = SETS.exec(text);
  if (set) {
    const members = set[2]!.split(',').map((m) => m.trim().replace('..', '–'));
    return members.length < 2
      ? members.join('')
      : `${members.slice(0, -1).join(', ')}${set[1] === '[' ? ' or ' : ' and '}${members.at(-1)}`;
  }
  const until = /^(?:\.\.)?\/(.+)$/.exec(text);
  return until ? `until ${until[1]}` : text;
}

const ordinal = (n: number): string => {
  const end = n % 100 > 10 && n % 100 < 14 ? 'th' : ({ 1: 'st', 2: 'nd', 3: 'rd' } as Record<number, string>)[n % 10];
  return `${n}${end ?? 'th'}`;
};
