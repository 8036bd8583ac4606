/** Ranges of years and days, as they are written in a query. */

/** A range of years; either end may be open. */
export interface YearRange {
  from?: number;
  to?: number;
}

export const YEARS_SAID = 'years are written 1980, 1980-2026, 1980- or <1980';

/** Reads "1980", "1980-2026", "1980..2026", "-1900", "1980-", "<1900", ">=1980"; undefined when it is no range. */
export function parseYears(text: string): YearRange | undefined {
  const t = text.trim().replace(/[–—]|\.\./g, '-');
  const compare = /^(<=?|>=?)\s*(\d{1,4})$/.exec(t);
  if (compare) {
    const year = Number(compare[2]);
    const edge = compare[1]!.includes('=') ? 0 : 1;
    return compare[1]!.startsWith('<') ? { to: year - edge } : { from: year + edge };
  }
  const range = /^(\d{1,4})?\s*(-)?\s*(\d{1,4})?$/.exec(t);
  if (!range || (!range[1] && !range[3])) return undefined;
  const [, from, dash, to] = range;
  if (!dash) return { from: Number(from ?? to), to: Number(from ?? to) };
  const out = { ...(from ? { from: Number(from) } : {}), ...(to ? { to: Number(to) } : {}) };
  return out.from !== undefined && out.to !== undefined && out.from > out.to ? { from: out.to, to: out.from } : out;
}

/** A range of days as "2026-03-01", both ends in it, either of them open; or so many days up to today. */
export type DayRange = { from?: string; to?: string } | { last: number };

export const DATES_SAID =
  'dates are written 2026, 2026-03, 2026-03-14, 2026-03..2026-05, 2026-03.., <2026-03, or 7d, 4w, 6m, 1y for the last days, weeks, months, years';

const IN_DAYS: Record<string, number> = { d: 1, w: 7, m: 30, y: 365 };

/** Reads what `DATES_SAID` says; undefined when it is none of it. A date alone is all the days it holds. */
export function parseDays(text: string): DayRange | undefined {
  const t = text.trim().replace(/[–—]/g, '..');
  const last = /^(\d{1,4})([dwmy])$/i.exec(t);
  if (last) return { last: Number(last[1]) * IN_DAYS[last[2]!.toLowerCase()]! };
  const compare = /^(<=?|>=?)\s*(\S+)$/.exec(t);
  if (compare) {
    const span = spanOf(compare[2]!);
    if (!span) return undefined;
    const [first, end] = span;
    switch (compare[1]) {
      case '<':
        return { to: shifted(first, -1) };
      case '<=':
        return { to: end };
      case '>':
        return { from: shifted(end, 1) };
      default:
        return { from: first };
    }
  }
  const ends = t.split('..');
  if (ends.length > 2 || !ends.some(Boolean)) return undefined;
  const spans = ends.map((e) => (e.trim() ? spanOf(e.trim()) : null));
  if (spans.some((s) => s === undefined)) return undefined;
  const [a, b] = spans as ([string, string] | null)[];
  if (ends.length === 1) return { from: a![0], to: a![1] };
  if (a && b && a[0] > b[0]) return { from: b[0], to: a[1] };
  return { ...(a && { from: a[0] }), ...(b && { to: b[1] }) };
}

/** The first and last day of a year, a month or a day. */
function spanOf(text: string): [string, string] | undefined {
  const m = /^(\d{4})(?:-(\d{1,2})(?:-(\d{1,2}))?)?$/.exec(text);
  if (!m) return undefined;
  const [year, month, day] = [Number(m[1]), m[2] && Number(m[2]), m[3] && Number(m[3])];
  if (month !== undefined && month !== '' && (month < 1 || month > 12)) return undefined;
  const first = new Date(Date.UTC(2000, 0, 1));
  first.setUTCFullYear(year, (month || 1) - 1, day || 1);
  if (day && first.getUTCDate() !== day) return undefined;
  const end = new Date(first);
  if (!month) end.setUTCFullYear(year, 11, 31);
  else if (!day) end.setUTCFullYear(year, month, 0);
  return [iso(first), iso(end)];
}

const iso = (date: Date): string => date.toISOString().slice(0, 10);

/** So many days later. */
export function shifted(day: string, days: number): string {
  const date = new Date(`${day}T00:00:00Z`);
  date.setUTCDate(date.getUTCDate() + days);
  return iso(date);
}
