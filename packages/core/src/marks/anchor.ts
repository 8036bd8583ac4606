/** The place of a mark on pages that read otherwise than those it was made on: corrected, read anew, or of a newer file. */
import { findQuote, type Quote, type Rect } from './quote.ts';

/** Where a mark stands, by file, page, quotation and rectangles. */
export interface MarkPlace {
  file: string;
  /** Counted from 1. */
  page: number;
  quote: Quote;
  rects: Rect[];
  /** It could not be placed again where its document changed: it stands on its page, without a place there. */
  unplaced: boolean;
}

export interface AnchorPage {
  /** From 1. */
  number: number;
  text: string;
}

export interface Anchored {
  page: number;
  start: number;
  end: number;
}

/** Of the words quoted, so many must be there again, in their order. */
const MOST_OF = 0.7;
/** What is shorter is found to the letter or not at all. */
const SHORTEST = 12;
/** Pages are looked through for most of the words so far around. */
const AROUND = 20;
/** So many words of a quotation are looked for, and so many places of each. */
const MOST_WORDS = 300;
const MOST_PLACES = 20;

/**
 * Where a quotation stands now: on its page, else on the nearest one, to the letter; else where most of its words stand in their
 * order, on the pages around. Undefined where neither is so.
 * @param hint where on its page it stood
 */
export function anchor(pages: readonly AnchorPage[], quote: Quote, page: number, hint = 0): Anchored | undefined {
  if (!quote.exact.trim()) return undefined;
  const near = [...pages].sort((a, b) => Math.abs(a.number - page) - Math.abs(b.number - page) || a.number - b.number);
  for (const { number, text } of near) {
    const at = findQuote(text, quote, number === page ? hint : 0);
    if (at) return { page: number, ...at };
  }
  if (quote.exact.length < SHORTEST) return undefined;
  const wanted = wordsIn(quote.exact).slice(0, MOST_WORDS);
  let best: (Anchored & { share: number }) | undefined;
  for (const { number, text } of near.filter((p) => Math.abs(p.number - page) <= AROUND)) {
    const at = roughly(wordsIn(text), wanted);
    if (at && at.share >= MOST_OF && (!best || at.share > best.share)) best = { page: number, ...at };
    if (best?.share === 1) break;
  }
  return best && { page: best.page, start: best.start, end: best.end };
}

interface Word {
  text: string;
  start: number;
  end: number;
}

const wordsIn = (text: string): Word[] =>
  [...text.matchAll(/[\p{L}\p{N}]+/gu)].map((m) => ({
    text: m[0].toLowerCase(),
    start: m.index,
    end: m.index + m[0].length,
  }));

/** The stretch of a text that has most of the words in their order: as many words, and a fifth more. */
function roughly(
  page: readonly Word[],
  wanted: readonly Word[],
): { start: number; end: number; share: number } | undefined {
  const placesOf = new Map<string, number[]>();
  page.forEach((w, i) => (placesOf.get(w.text) ?? placesOf.set(w.text, []).get(w.text)!).push(i));
  const length = Math.ceil(wanted.length * 1.2);
  let best: { start: number; end: number; share: number } | undefined;
  const tried = new Set<number>();
  // Each word of the quotation says where its beginning would be.
  wanted.forEach((word, k) => {
    const places = placesOf.get(word.text);
    if (!places || places.length > MOST_PLACES) return;
    for (const place of places) {
      const from = Math.max(0, place - k);
      if (tried.has(from)) continue;
      tried.add(from);
      const of = page.slice(from, from + length);
      const met = inOrder(of, wanted);
      const share = met.length / wanted.length;
      if (met.length && (!best || share > best.share))
        best = { start: of[met[0]!]!.start, end: of[met.at(-1)!]!.end, share };
    }
  });
  return best;
}

/** Which of the words are the wanted ones, in their order: each the next that fits, one that is not there passed over. */
function inOrder(of: readonly Word[], wanted: readonly Word[]): number[] {
  const met: number[] = [];
  let next = 0;
  for (const word of wanted) {
    const at = of.findIndex((w, i) => i >= next && i < next + 4 && w.text === word.text);
    if (at < 0) continue;
    met.push(at);
    next = at + 1;
  }
  return met;
}

/**
 * A span of a text where it stands after some of the text was altered: what lies before and after the altered part keeps to its
 * letters, and what began or ended within it takes all of it.
 */
export function spanAfter(
  before: string,
  after: string,
  { start, end }: { start: number; end: number },
): {
  start: number;
  end: number;
} {
  const most = Math.min(before.length, after.length);
  let head = 0;
  while (head < most && before[head] === after[head]) head += 1;
  let tail = 0;
  while (tail < most - head && before.at(-1 - tail) === after.at(-1 - tail)) tail += 1;
  // Words are altered, not letters: one that begins alike is still another.
  while (head > 0 && head < before.length && /[\p{L}\p{N}]/u.test(before[head - 1]!)) head -= 1;
  while (tail > 0 && tail < before.length && /[\p{L}\p{N}]/u.test(before.at(-tail)!)) tail -= 1;
  const by = after.length - before.length;
  const beyond = before.length - tail;
  return {
    start: start <= head ? start : start >= beyond ? start + by : head,
    end: end <= head ? end : end >= beyond ? end + by : after.length - tail,
  };
}

/** How much of the words of one page stand on the other, from 0 to 1: pages without words are unlike any. */
export function likeness(a: string, b: string): number {
  const [of, other] = [a, b].map((text) => new Set(wordsIn(text).map((w) => w.text)));
  if (!of!.size || !other!.size) return 0;
  let both = 0;
  for (const word of of!) if (other!.has(word)) both += 1;
  return both / Math.max(of!.size, other!.size);
}
