/** How numbers, counts, days and times are written in texts. */

const NUMBER = new Intl.NumberFormat('en');

/** "1,204"; an empty text for a number that is not known. */
export const formatNumber = (n: number | null | undefined): string => (n == null ? '' : NUMBER.format(n));

/** A number with its word: "1 mark", "1,204 marks". */
export const counted = (n: number, one: string, many = `${one}s`): string =>
  `${formatNumber(n)} ${n === 1 ? one : many}`;

const FORMS = {
  /** "29 November 2026" */
  full: { day: 'numeric', month: 'long', year: 'numeric' },
  /** "29 Nov 2026" */
  short: { day: 'numeric', month: 'short', year: 'numeric' },
  /** "Sunday, 29 November 2026" */
  weekday: { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' },
  /** "November 2026" */
  month: { month: 'long', year: 'numeric' },
  /** "29 Nov 2026, 14:05" */
  minute: { dateStyle: 'medium', timeStyle: 'short' },
  /** "14:05" */
  time: { timeStyle: 'short' },
  /** "29 November" */
  'this year': { day: 'numeric', month: 'long' },
  /** "Sunday" */
  'this week': { weekday: 'long' },
} as const satisfies Record<string, Intl.DateTimeFormatOptions>;
const formatters = new Map<keyof typeof FORMS, Intl.DateTimeFormat>();

/** A day or a time in the reader's time zone. @param at a moment: ISO 8601, or milliseconds since 1970 */
export function formatDate(at: string | number, as: keyof typeof FORMS = 'full'): string {
  // Making one takes seventy times as long as using it.
  let formatter = formatters.get(as);
  if (!formatter) formatters.set(as, (formatter = new Intl.DateTimeFormat('en-GB', FORMS[as])));
  return formatter.format(new Date(at));
}
