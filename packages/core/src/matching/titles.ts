/**
 * Titles, word by word: what stands in both, allowing for faults, and what is left on either side. Numbers, letters of parts
 * and words that make a notice of a work count only there.
 */
import { nearly } from './near.ts';
import { isSmall, type Seen } from './seen.ts';

export interface Weights {
  each: Float64Array;
  all: number;
}

/**
 * How much a word says: more the longer, and so the rarer, it is. Counting how common each is among the records at hand was
 * measured and told no more (docs/measurements.md); so a pair is judged alike wherever it is met.
 */
const weightOf = (word: string): number =>
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

/** The share of the lighter title that stands in a notice of it. */
const NOTICED = 0.3;

const MONTHS = new Set(['january', 'february', 'march', 'april', 'may', 'june', 'july', 'august', 'september', 'october', 'november', 'december', 'spring', 'summer', 'autumn', 'winter']); // prettier-ignore

/** What the words of a title weigh, found once for records that are compared with many. */
function weightsOf(s: Seen): Weights {
  if (s.weights) return s.weights;
  const each = new Float64Array(s.words.length);
  let all = 0;
  for (const [i, word] of s.words.entries()) all += each[i] = weightOf(word);
  return (s.weights = { each, all });
}

export function compareTitles(a: Seen, b: Seen): TitleEvidence | undefined {
  if (!a.words.length || !b.words.length) return undefined;
  const [ofA, ofB] = [weightsOf(a), weightsOf(b)];
  const [wa, wb] = [ofA.all, ofB.all];
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
  const { left, right } = align(a, b);
  let [la, lb] = [0, 0];
  for (const i of left) la += ofA.each[i]!;
  for (const j of right) lb += ofB.each[j]!;
  const both = (wa - la + wb - lb) / 2;
  const [ca, cb] = [countsIn(a, left), countsIn(b, right)];
  const onlyA = ca.some((c) => !cb.includes(c));
  const onlyB = cb.some((c) => !ca.includes(c));
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
    numbers: onlyA && onlyB ? 2 : onlyA || onlyB ? 1 : 0,
    // Of titles that are not alike neither is a notice of the other.
    notice: both > NOTICED * Math.min(wa, wb) && notices(a.words, left) !== notices(b.words, right),
    other: Math.min(la, lb),
  };
}

const NONE: string[] = [];
/** The numbers, parts and months among the words at these places. */
function countsIn({ words, counts }: Seen, at: readonly number[]): string[] {
  let out = NONE;
  for (const i of at) {
    const c = MONTHS.has(words[i]!) ? words[i] : (counts[i] ?? letterOf(words, i));
    if (c === undefined) continue;
    if (out === NONE) out = [];
    out.push(c);
  }
  return out;
}

/** The letter of a part: "Part B", "series A". */
function letterOf(words: string[], at: number): string | undefined {
  const word = words[at]!;
  return word.length === 1 && /^(?:part|series|section|volume|appendix|annex|type|class|schedule)$/.test(words[at - 1] ?? '') ? word : undefined; // prettier-ignore
}

/** The places of the words that stand in one title alone. */
function align({ words: a, counts: ca }: Seen, { words: b, counts: cb }: Seen): { left: number[]; right: number[] } {
  const taken = new Uint8Array(b.length);
  let left: number[] = [];
  for (let i = 0; i < a.length; i += 1) {
    let j = 0;
    while (j < b.length && (taken[j] || a[i] !== b[j])) j += 1;
    if (j === b.length) left.push(i);
    else taken[j] = 1;
  }
  const free = (): number[] => {
    const out: number[] = [];
    for (let j = 0; j < b.length; j += 1) if (!taken[j]) out.push(j);
    return out;
  };
  let open = free();
  if (!left.length || !open.length) return { left, right: open };
  left = left.filter((i) => {
    const j = open.find((k) => !taken[k] && same(a[i]!, b[k]!, ca[i], cb[k]));
    if (j === undefined) return true;
    taken[j] = 1;
    return false;
  });
  open = free();
  if (!open.length || !left.length) return { left, right: open };
  // Two words written as one, or one as two.
  const gone = new Set<number>();
  for (const i of left) {
    if (gone.has(i)) continue;
    const both = left.includes(i + 1) ? a[i]! + a[i + 1]! : undefined;
    const k = open.find((j) => b[j] === both || (!taken[j + 1] && j + 1 < b.length && b[j]! + b[j + 1]! === a[i]));
    if (k === undefined) continue;
    gone.add(i);
    taken[k] = 1;
    if (b[k] === both) gone.add(i + 1);
    else taken[k + 1] = 1;
    open = free();
  }
  return { left: left.filter((i) => !gone.has(i)), right: open };
}

/** "&" and "and" are folded away before; a count is another count's only where they are equal. */
function same(x: string, y: string, count: string | undefined, other: string | undefined): boolean {
  if (count !== undefined || other !== undefined) return count === other;
  if (nearly(x, y)) return true;
  const [short, long] = x.length < y.length ? [x, y] : [y, x];
  return short.length >= 4 && long.length > short.length && long.startsWith(short) && long.length - short.length >= 3;
}
