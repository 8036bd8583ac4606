/** How numbers, counts, days and times are written in texts. */

/** "1,204"; nothing where the number is not known. */
export const formatNumber = (n: number | null | undefined): string => n?.toLocaleString('en') ?? '';

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

/** A day or a time in the reader's time zone. @param at a moment: ISO 8601, or milliseconds since 1970 */
export const formatDate = (at: string | number, as: keyof typeof FORMS = 'full'): string =>
  new Date(at).toLocaleString('en-GB', FORMS[as]);
