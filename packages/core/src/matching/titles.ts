/**
 * Titles, word by word: what stands in both, allowing for faults, and what is left on either side. Numbers, letters of parts
 * and words that make a notice of a work count only there.
 */
import { nearly } from './near.ts';
import { isSmall, romanOf, type Seen } from './seen.ts';

/** How much a word says: more the rarer it is. */
export type Rarity = (word: string) => number;

/** Without knowing how common words are: short ones say little. */
export const byLength: Rarity = (word) =>
  isSmall(word) ? 0.3 : word.length <= 2 ? 0.6 : word.length <= 4 ? 1.5 : Math.min(4, 1 + word.length * 0.3);

export interface TitleEvidence {
  /** Shares of weight that stand in both: of the lighter title, of the heavier. */
  least: number;
  most: number;
  exact: boolean;
  /** The weight in both. */
  bits: number;
  /** One is the other without its subtitle. */
  subset: boolean;
  /** Numbers and parts that stand in one alone: on both sides, or on one. */
  numbers: 0 | 1 | 2;
  /** Words that make one a notice of the other: "erratum", "reply to", "review of". */
  notice: boolean;
  /** Words left on both sides, by weight: other words in the same place. */
  other: number;
}

const NOTICES = ['erratum', 'errata', 'corrigendum', 'corrigenda', 'correction', 'corrections', 'addendum', 'reply', 'response', 'rejoinder', 'comment', 'comments', 'commentary', 'retraction', 'retracted', 'withdrawn', 'withdrawal', 'review', 'reviewed', 'rezension', 'discussion', 'postscript', 'supplement', 'supplementary', 'appendix', 'concern', 'reprint', 'translation', 'introduction', 'preface', 'foreword', 'index', 'abstract', 'summary', 'editorial', 'obituary', 'teacher', 'workbook', 'solutions', 'companion', 'revisited', 'reconsidered', 'update', 'followup']; // prettier-ignore
const NOTICE = new Set(NOTICES);
/** A notice word may be mistyped itself. */
function isNotice(word: string): boolean {
  if (NOTICE.has(word)) return true;
  if (word.length < 7) return false;
  let known = notices.get(word);
  if (known === undefined) {
    known = NOTICES.some((n) => n.length >= 7 && nearly(word, n));
    if (notices.size > 50_000) notices.clear();
    notices.set(word, known);
  }
  return known;
}
const notices = new Map<string, boolean>();

const COUNTS = new Map(['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'].map((w, i) => [w, i + 1])); // prettier-ignore
const ORDINALS = new Map(['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth'].map((w, i) => [w, i + 1])); // prettier-ignore

/** What a word counts as, where it counts: "II", "2", "second", "2nd", "two". */
function countOf(word: string): string | undefined {
  const digits = /^(\d+)(?:st|nd|rd|th)?$/.exec(word)?.[1];
  if (digits) return digits.replace(/^0+(?=\d)/, '');
  if (/\d/.test(word)) return word;
  const n = romanOf(word) || COUNTS.get(word) || ORDINALS.get(word);
  return n ? String(n) : undefined;
}

const MONTHS = new Set(['january', 'february', 'march', 'april', 'may', 'june', 'july', 'august', 'september', 'october', 'november', 'december', 'spring', 'summer', 'autumn', 'winter']); // prettier-ignore

export function compareTitles(a: Seen, b: Seen, rarity: Rarity = byLength): TitleEvidence | undefined {
  if (!a.words.length || !b.words.length) return undefined;
  const weigh = (words: string[]): number => words.reduce((sum, w) => sum + rarity(w), 0);
  const [wa, wb] = [weigh(a.words), weigh(b.words)];
  if (a.letters === b.letters)
    return {
      least: 1,
      most: 1,
      exact: true,
      bits: Math.min(wa, wb),
      subset: false,
      numbers: 0,
      notice: false,
      other: 0,
    };
  const { left, right } = align(a.words, b.words);
  const [la, lb] = [weigh(left.map((i) => a.words[i]!)), weigh(right.map((j) => b.words[j]!))];
  const both = (wa - la + wb - lb) / 2;
  const counts = (words: string[], at: number[]): string[] =>
    at.flatMap((i) => (MONTHS.has(words[i]!) ? words[i]! : (countOf(words[i]!) ?? letterOf(words, i) ?? [])));
  const [ca, cb] = [counts(a.words, left), counts(b.words, right)];
  const onlyA = ca.filter((c) => !cb.includes(c));
  const onlyB = cb.filter((c) => !ca.includes(c));
  const short = la <= lb ? a : b;
  const long = short === a ? b : a;
  const shortLeft = short === a ? left : right;
  const longLeft = short === a ? right : left;
  const notices = (words: string[], at: number[]): boolean => at.some((i) => isNotice(words[i]!));
  return {
    least: Math.min(1, both / Math.min(wa, wb)),
    most: both / Math.max(wa, wb),
    exact: false,
    bits: both,
    // What is left of the longer is all behind its main title.
    subset: shortLeft.length === 0 && longLeft.every((i) => i >= long.main) && long.main >= 2,
    numbers: onlyA.length && onlyB.length ? 2 : onlyA.length || onlyB.length ? 1 : 0,
    notice: notices(a.words, left) !== notices(b.words, right),
    other: Math.min(la, lb),
  };
}

/** The letter of a part: "Part B", "series A". */
function letterOf(words: string[], at: number): string | undefined {
  const word = words[at]!;
  return word.length === 1 && /^(?:part|series|section|volume|appendix|annex|type|class|schedule)$/.test(words[at - 1] ?? '') ? word : undefined; // prettier-ignore
}

/** The places of the words that stand in one title alone. */
function align(a: string[], b: string[]): { left: number[]; right: number[] } {
  const where = new Map<string, number[]>();
  b.forEach((w, j) => where.get(w)?.push(j) ?? where.set(w, [j]));
  const taken = new Array<boolean>(b.length).fill(false);
  let left: number[] = [];
  for (let i = 0; i < a.length; i += 1) {
    const j = where.get(a[i]!)?.find((k) => !taken[k]);
    if (j === undefined) left.push(i);
    else taken[j] = true;
  }
  const free = (): number[] => b.flatMap((_, j) => (taken[j] ? [] : [j]));
  if (!left.length) return { left, right: free() };
  let open = free();
  left = left.filter((i) => {
    const word = a[i]!;
    const count = countOf(word);
    const j = open.find((k) => same(word, b[k]!, count));
    if (j === undefined) return true;
    taken[j] = true;
    open = open.filter((k) => k !== j);
    return false;
  });
  if (!open.length || !left.length) return { left, right: open };
  // Two words written as one, or one as two.
  const gone = new Set<number>();
  for (const i of left) {
    if (gone.has(i)) continue;
    const both = left.includes(i + 1) ? a[i]! + a[i + 1]! : undefined;
    const k = open.find((j) => b[j] === both || (!taken[j + 1] && j + 1 < b.length && b[j]! + b[j + 1]! === a[i]));
    if (k === undefined) continue;
    gone.add(i);
    taken[k] = true;
    if (b[k] === both) gone.add(i + 1);
    else taken[k + 1] = true;
    open = free();
  }
  return { left: left.filter((i) => !gone.has(i)), right: open };
}

/** "&" and "and" are folded away before; a count is another count's only where they are equal. */
function same(x: string, y: string, count: string | undefined): boolean {
  const other = countOf(y);
  if (count !== undefined || other !== undefined) return count === other;
  if (nearly(x, y)) return true;
  const [short, long] = x.length < y.length ? [x, y] : [y, x];
  return short.length >= 4 && long.length > short.length && long.startsWith(short) && long.length - short.length >= 3;
}
