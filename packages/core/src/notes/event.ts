/** When what a note tells of happened: written as people write it or in EDTF, sorted by the days it may mean. */
import { parseDate } from '../source/index.ts';

/** The first and last day, each counted from 1970-01-01 in the Gregorian calendar, carried back before it began. */
export interface DaySpan {
  from: number;
  to: number;
}

const DAY_MS = 86_400_000;
/** The first month of each season of the north, as EDTF counts them from 21 (ISO 8601-2, 4.8); winter begins in December. */
const SEASON_MONTHS: Record<number, number> = { 1: 3, 2: 6, 3: 9, 4: 12, 21: 3, 22: 6, 23: 9, 24: 12 };

/** CSL has no year 0: −1 is the year before 1. */
const dayOf = (year: number, month: number, day: number): number => {
  const at = new Date(0);
  at.setUTCFullYear(year < 0 ? year + 1 : year, month - 1, day);
  return Math.round(at.getTime() / DAY_MS);
};

/** How far from today a day may lie: beyond it dates cannot be reckoned with. */
const FURTHEST_YEAR = 200_000;

/** The days a date may mean; nothing where it is not read as a date. */
export function eventSpan(text: string): DaySpan | undefined {
  const date = parseDate(text);
  const parts = date?.['date-parts'];
  const first = parts?.[0];
  if (!first?.[0]) return undefined;
  const last = parts!.length > 1 && parts!.at(-1)![0] ? parts!.at(-1)! : first;
  if ([first[0], last[0]!].some((year) => Math.abs(year) > FURTHEST_YEAR)) return undefined;
  const season = date!.season && SEASON_MONTHS[date!.season];
  if (season) return { from: dayOf(first[0], season, 1), to: dayOf(first[0], season + 3, 0) };
  const [year, month, day] = last;
  return {
    from: dayOf(first[0], first[1] ?? 1, first[2] ?? 1),
    to: day ? dayOf(year!, month!, day) : month ? dayOf(year!, month + 1, 0) : dayOf(year!, 12, 31),
  };
}

/** The year a day lies in, without a year 0. */
export function yearOfDay(day: number): number {
  const year = new Date(day * DAY_MS).getUTCFullYear();
  return year > 0 ? year : year - 1;
}
