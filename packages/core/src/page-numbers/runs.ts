/**
 * How the pages of a document are numbered, as runs of pages whose numbers follow each other: the page labels of
 * ISO 32000-1 (12.4.2, table 159), which serve for numbers that were read or set by hand as well.
 */

/** D, R, r, A, a of table 159; `none` has its prefix alone; `folio` counts the two sides of leaves: 1r, 1v, 2r (set by hand alone). */
export const NUMBER_STYLES = ['decimal', 'ROMAN', 'roman', 'LETTERS', 'letters', 'none', 'folio'] as const;
export type NumberStyle = (typeof NUMBER_STYLES)[number];

export interface NumberRun {
  /** The page it begins with, counted from 1; it goes on to where the next begins. */
  page: number;
  style: NumberStyle;
  prefix: string;
  /** The number of its first page. */
  start: number;
}

const ROMAN: [number, string][] = [
  [1000, 'm'],
  [900, 'cm'],
  [500, 'd'],
  [400, 'cd'],
  [100, 'c'],
  [90, 'xc'],
  [50, 'l'],
  [40, 'xl'],
  [10, 'x'],
  [9, 'ix'],
  [5, 'v'],
  [4, 'iv'],
  [1, 'i'],
];

/** In small letters. @param n from 1 */
export function roman(n: number): string {
  let [out, left] = ['', n];
  for (const [value, letters] of ROMAN)
    while (left >= value) {
      out += letters;
      left -= value;
    }
  return out;
}

/** The number that small or capital Roman numerals write; undefined of anything else, and of what nobody writes so ("iiii"). */
export function fromRoman(text: string): number | undefined {
  const small = text.toLowerCase();
  if (!small || small.length > 15 || !/^[mdclxvi]+$/.test(small)) return undefined;
  let [n, rest] = [0, small];
  for (const [value, letters] of ROMAN)
    while (rest.startsWith(letters)) {
      n += value;
      rest = rest.slice(letters.length);
    }
  return !rest && roman(n) === small ? n : undefined;
}

/** a to z, then aa to zz, and so on (table 159). */
const letters = (n: number): string => 'abcdefghijklmnopqrstuvwxyz'[(n - 1) % 26]!.repeat(Math.ceil(n / 26));

const WRITE: Record<NumberStyle, (n: number) => string> = {
  decimal: String,
  roman,
  ROMAN: (n) => roman(n).toUpperCase(),
  letters,
  LETTERS: (n) => letters(n).toUpperCase(),
  none: () => '',
  folio: (n) => `${Math.ceil(n / 2)}${n % 2 ? 'r' : 'v'}`,
};

/** Longer than any that is printed: a hostile file may count from a number whose Roman form fills a page. */
const HIGHEST = 100_000;

/** The number of a page in a run; empty where it has none. */
export function numberIn(run: NumberRun, page: number): string {
  const n = run.start + page - run.page;
  return run.prefix + (n >= 1 && n <= HIGHEST ? WRITE[run.style](n) : '');
}

/** The run a page is in. @param runs by their pages */
export const runOf = (runs: readonly NumberRun[], page: number): NumberRun | undefined =>
  runs.findLast((run) => run.page <= page);

/** What one writes of a page ("xii", "212", "A-3", of a leaf "12r") as the run that begins with it; undefined where nothing of it is counted. */
export function runFrom(page: number, written: string): NumberRun | undefined {
  const text = written.trim();
  const [, leaf, side] = /^(?:ff?\.|fols?\.?)?\s*(\d{1,5})\s*([rv])$/i.exec(text) ?? [];
  if (leaf)
    return { page, style: 'folio', prefix: '', start: 2 * Number(leaf) - (side!.toLowerCase() === 'r' ? 1 : 0) };
  const number = (/\d{1,6}$/.exec(text) ?? /(?:[mdclxvi]{1,15}|[MDCLXVI]{1,15})$/.exec(text))?.[0] ?? '';
  const prefix = text.slice(0, text.length - number.length);
  if (/\d/.test(number)) return { page, style: 'decimal', prefix, start: Number(number) };
  const n = prefix && /\p{L}$/u.test(prefix) ? undefined : fromRoman(number);
  return n ? { page, style: number === number.toUpperCase() ? 'ROMAN' : 'roman', prefix, start: n } : undefined;
}

/** Whether the pages are merely counted. */
export const isPlainCount = (runs: readonly NumberRun[]): boolean =>
  runs.every((r) => r.style === 'decimal' && !r.prefix && r.start === r.page);
