/**
 * The place of a mark, known in three ways after the W3C Web Annotation model (2017, section 4.2): by quotation
 * (TextQuoteSelector), by position in the text of the page (TextPositionSelector), and by rectangles.
 */
import { cut, cutStart } from '../text/index.ts';

export interface Quote {
  exact: string;
  prefix: string;
  suffix: string;
}

/** In points from the upper left corner of the page, as it is shown unrotated. */
export interface Rect {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

const CONTEXT = 32;

/** The quotation of a span of a text, with up to 32 characters on each side. */
export function quoteAt(text: string, start: number, end: number): Quote {
  return {
    exact: text.slice(start, end),
    prefix: cutStart(text.slice(0, start), CONTEXT),
    suffix: cut(text.slice(end), CONTEXT),
  };
}

/**
 * Where a quotation stands in a text: the place whose surroundings agree best, nearest to `hint` when several agree
 * alike; undefined when the words are not there. White space and hyphens at line ends do not matter.
 */
export function findQuote(text: string, quote: Quote, hint = 0): { start: number; end: number } | undefined {
  const page = squeeze(text);
  const wanted = squeeze(quote.exact).text;
  if (!wanted) return undefined;
  const before = squeeze(quote.prefix).text;
  const after = squeeze(quote.suffix).text;
  let best: { start: number; end: number; score: number } | undefined;
  for (let at = page.text.indexOf(wanted); at >= 0; at = page.text.indexOf(wanted, at + 1)) {
    const end = at + wanted.length;
    const start = page.at[at]!;
    const score =
      commonEnd(page.text.slice(0, at), before) +
      commonStart(page.text.slice(end), after) -
      Math.abs(start - hint) / 1e6;
    if (!best || score > best.score) best = { start, end: page.at[end - 1]! + 1, score };
  }
  return best && { start: best.start, end: best.end };
}

function squeeze(text: string): { text: string; at: number[] } {
  let out = '';
  const at: number[] = [];
  for (let i = 0; i < text.length; i += 1) {
    const c = text[i]!;
    if (/[\s\u00AD\-‐]/.test(c)) continue;
    out += c;
    at.push(i);
  }
  return { text: out, at };
}

function commonStart(a: string, b: string): number {
  let n = 0;
  while (n < a.length && n < b.length && a[n] === b[n]) n += 1;
  return n;
}

function commonEnd(a: string, b: string): number {
  let n = 0;
  while (n < a.length && n < b.length && a[a.length - 1 - n] === b[b.length - 1 - n]) n += 1;
  return n;
}
