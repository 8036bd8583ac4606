/**
 * Whether the words of a quotation stand on the page it names. Words are compared without case, accents, punctuation and the
 * hyphens of line ends; a word that is another word is never passed over.
 */
import { fold } from '../words/index.ts';

/** A page of a document, numbered from 1. */
export interface CheckedPage {
  number: number;
  text: string;
  /** Its words were recognised in a picture, so letters may be misread. */
  recognised?: boolean;
}

/** What differs, in order: words of the quotation, and what the page has instead; either may be empty. */
export interface Difference {
  quoted: string;
  page: string;
  /** The page was recognised, and the two look alike: rather a fault of recognition. */
  misread: boolean;
}

export interface Checked {
  /** `yes`: word for word; `nearly`: most of it, with what differs; `no`: not on this page. */
  stands: 'yes' | 'nearly' | 'no';
  differences: Difference[];
  /** The words as the page has them, where they stand there or nearly do. */
  asThere: string;
  /** Another page on which the words stand word for word, where they do not on the one named. */
  elsewhere: number | null;
}

interface Word {
  /** Folded, letters and digits alone. */
  is: string;
  start: number;
  end: number;
}

const HYPHENS = '\\-\\u2010\\u2011\\u00AD';
/** Letters and digits, with apostrophes within, and across hyphens, after which a line may end. */
const WORD = new RegExp(`[\\p{L}\\p{N}\\p{M}]+(?:(?:['’]|[${HYPHENS}]\\s*)[\\p{L}\\p{N}\\p{M}]+)*`, 'gu');

const wordsOf = (text: string): Word[] =>
  [...text.matchAll(WORD)].map((m) => ({
    is: fold(m[0].normalize('NFKD')).replace(/[^\p{L}\p{N}]/gu, ''),
    start: m.index,
    end: m.index + m[0].length,
  }));

/** What was left out (…) and what was put in ([the], [sic]): between them stand the words of the page. */
const PUT_IN = String.raw`\[[^[\]]{0,200}\]`;
const LEFT_OUT = String.raw`…|\.\s?\.\s?\.(?:\s?\.)?`;

interface Stretch {
  words: Word[];
  text: string;
  /** Words of the page may stand before it; else it goes on at once. */
  afterGap: boolean;
}

/** @param brackets what they hold was put in; else it is of the page, as the numbers of references are */
function stretchesOf(quotation: string, brackets: 'put in' | 'of the page'): Stretch[] {
  const between = new RegExp(brackets === 'put in' ? `(${LEFT_OUT})|${PUT_IN}` : `(${LEFT_OUT})`, 'g');
  const out: Stretch[] = [];
  let [from, afterGap] = [0, false];
  const add = (to: number): void => {
    const text = quotation.slice(from, to).trim();
    const words = wordsOf(text);
    if (words.length) out.push({ words, text, afterGap });
    if (words.length) afterGap = false;
  };
  for (const m of quotation.matchAll(between)) {
    add(m.index);
    afterGap ||= Boolean(m[1]);
    from = m.index + m[0].length;
  }
  add(quotation.length);
  return out;
}

interface Found {
  from: number;
  /** The place after its last word. */
  to: number;
}

/** The first run of exactly these words at or after a place. */
function runFrom(page: readonly Word[], wanted: readonly Word[], from: number): Found | undefined {
  const last = page.length - wanted.length;
  for (let at = from; at <= last; at += 1)
    if (wanted.every((w, k) => page[at + k]!.is === w.is)) return { from: at, to: at + wanted.length };
  return undefined;
}

function exactly(page: readonly Word[], stretches: readonly Stretch[]): Found | undefined {
  for (let begin = 0; ;) {
    const first = runFrom(page, stretches[0]!.words, begin);
    if (!first) return undefined;
    let at: Found | undefined = first;
    for (const { words, afterGap } of stretches.slice(1)) {
      const next: Found | undefined = at && runFrom(page, words, at.to);
      at = next && (afterGap || next.from === at!.to) ? next : undefined;
    }
    if (at) return { from: first.from, to: at.to };
    begin = first.from + 1;
  }
}

/** So much of the words must stand there, in their order, for it to be nearly that. */
const MOST_OF = 0.7;
/** Of so few words none may differ. */
const FEWEST = 3;
/** So many words are compared one by one; a quotation that is longer is a chapter. */
const MOST_WORDS = 600;
const MOST_PLACES = 12;
const FEWEST_TELLING = 5;
const MOST_REPLACED = 2;

/** The stretch of the page that has most of the words in their order. */
function nearest(page: readonly Word[], wanted: readonly Word[]): (Found & { share: number }) | undefined {
  const placesOf = new Map<string, number[]>();
  page.forEach((w, i) => (placesOf.get(w.is) ?? placesOf.set(w.is, []).get(w.is)!).push(i));
  const begun = new Map<number, number>();
  // Rare words tell best where it begins; of a page that repeats itself those that are least frequent.
  const telling = wanted
    .map((w, k) => ({ k, places: placesOf.get(w.is) ?? [] }))
    .filter(({ places }) => places.length)
    .sort((a, b) => a.places.length - b.places.length || a.k - b.k)
    .filter(({ places }, i) => places.length <= MOST_PLACES || i < FEWEST_TELLING);
  for (const { k, places } of telling)
    for (const place of places) begun.set(place - k, (begun.get(place - k) ?? 0) + 1);
  // What most words agree on is looked at first.
  const likely = [...begun].sort((a, b) => b[1] - a[1] || a[0] - b[0]).slice(0, 8);
  let best: (Found & { share: number }) | undefined;
  for (const [start] of likely) {
    const spare = Math.max(3, Math.ceil(wanted.length * 0.15));
    const from = Math.max(0, start - spare);
    const window = page.slice(from, start + wanted.length + spare);
    const pairs = common(window, wanted);
    const share = pairs.length / wanted.length;
    if (!pairs.length || (best && share <= best.share)) continue;
    // Up to two words without a match at either end are compared with as many of the page; more are taken as put in.
    const [[first, before], [last, after]] = [pairs[0]!, pairs.at(-1)!];
    const few = (n: number): number => (n <= MOST_REPLACED ? n : 0);
    const to = Math.min(page.length, from + last + 1 + few(wanted.length - 1 - after));
    best = { from: Math.max(0, from + first - few(before)), to, share };
  }
  return best;
}

/** The longest common run of words, each pair as places in the one and the other (Wagner and Fischer, JACM 21(1), 1974). */
function common(a: readonly Word[], b: readonly Word[]): [number, number][] {
  const width = b.length + 1;
  const longest = new Uint16Array((a.length + 1) * width);
  for (let i = a.length - 1; i >= 0; i -= 1)
    for (let k = b.length - 1; k >= 0; k -= 1)
      longest[i * width + k] =
        a[i]!.is === b[k]!.is
          ? longest[(i + 1) * width + k + 1]! + 1
          : Math.max(longest[(i + 1) * width + k]!, longest[i * width + k + 1]!);
  const pairs: [number, number][] = [];
  for (let i = 0, k = 0; i < a.length && k < b.length;)
    if (a[i]!.is === b[k]!.is) pairs.push([i++, k++]);
    else if (longest[(i + 1) * width + k]! >= longest[i * width + k + 1]!) i += 1;
    else k += 1;
  return pairs;
}

/** Letters that recognition takes for each other (common practice: what proofreaders of scans look for). */
const ALIKE: [RegExp, string][] = [
  [/rn|nn/g, 'm'],
  [/vv/g, 'w'],
  [/cl/g, 'd'],
  [/[1i|!jt]/g, 'l'],
  [/[0q]/g, 'o'],
  [/5/g, 's'],
  [/8/g, 'b'],
  [/[ec]/g, 'c'],
  [/[fſ]/g, 's'],
  [/[hb]/g, 'b'],
];
const looks = (words: string): string => ALIKE.reduce((t, [from, to]) => t.replace(from, to), words.replace(/\s/g, ''));

function differencesOf(
  text: string,
  quoted: string,
  page: readonly Word[],
  wanted: readonly Word[],
  recognised: boolean,
): Difference[] {
  const pairs: [number, number][] = [...common(page, wanted), [page.length, wanted.length]];
  const out: Difference[] = [];
  let [i, k] = [0, 0];
  for (const [nextI, nextK] of pairs) {
    if (nextI > i || nextK > k) {
      const [there, said] = [page.slice(i, nextI), wanted.slice(k, nextK)];
      const words = (of: readonly Word[], from: string): string =>
        of.length ? from.slice(of[0]!.start, of.at(-1)!.end).replace(/\s+/g, ' ') : '';
      const [a, b] = [there, said].map((of) => of.map((w) => w.is).join(''));
      out.push({
        quoted: words(said, quoted),
        page: words(there, text),
        misread: recognised && Boolean(a && b) && looks(a!) === looks(b!),
      });
    }
    [i, k] = [nextI + 1, nextK + 1];
  }
  return out;
}

/** As it stands on the page, in one line: hyphens of line ends taken out. */
export const asQuoted = (text: string): string =>
  text
    .replace(/\u00AD\s*/g, '')
    .replace(/(\p{Ll})[-‐]\s*\n\s*(?=\p{Ll})/gu, '$1')
    .replace(/\s+/g, ' ')
    .trim();

const NOT_THERE: Checked = { stands: 'no', differences: [], asThere: '', elsewhere: null };

/**
 * @param pages those of its document, or some around the page it names
 * @param page the one it names; a quotation that goes on to the next page stands on the first of them
 */
export function checkQuotation(quotation: string, pages: readonly CheckedPage[], page: number): Checked {
  const ways = (['of the page', 'put in'] as const).map((brackets) => stretchesOf(quotation, brackets)).filter((w) => w.length); // prettier-ignore
  const [literal] = ways;
  if (!literal) return NOT_THERE;
  const byNumber = new Map(pages.map((p) => [p.number, p]));
  const onto = (number: number): { text: string; recognised: boolean; length: number } | undefined => {
    const [own, next] = [number, number + 1].map((n) => byNumber.get(n));
    if (!own) return undefined;
    return {
      text: next ? `${own.text}\n${next.text}` : own.text,
      recognised: Boolean(own.recognised),
      length: own.text.length,
    };
  };
  const here = onto(page);
  const beginsOn = (words: Word[], at: Found, length: number): boolean => words[at.from]!.start < length;
  /** Word for word, whichever way its brackets are meant. */
  const standsOn = ({ text, length }: { text: string; length: number }): string | undefined => {
    const words = wordsOf(text);
    const at = ways.map((w) => exactly(words, w)).find((found) => found && beginsOn(words, found, length));
    return at && asQuoted(text.slice(words[at.from]!.start, words[at.to - 1]!.end));
  };
  const asThere = here && standsOn(here);
  if (asThere !== undefined) return { ...NOT_THERE, stands: 'yes', asThere };
  const elsewhere =
    pages.find(({ number }) => {
      const there = number !== page && onto(number);
      return there && standsOn(there) !== undefined;
    })?.number ?? null;
  if (!here || elsewhere) return { ...NOT_THERE, elsewhere };
  const quoted = (ways.at(-1) ?? literal).map((w) => w.text).join(' ');
  const wanted = wordsOf(quoted).slice(0, MOST_WORDS);
  const words = wordsOf(here.text);
  const at = wanted.length > FEWEST ? nearest(words, wanted) : undefined;
  if (!at || at.share < MOST_OF || !beginsOn(words, at, here.length)) return NOT_THERE;
  // Words left off at its beginning or end differ too, as far as the quotation has them.
  const differences = differencesOf(here.text, quoted, words.slice(at.from, at.to), wanted, here.recognised);
  if (!differences.length) return { ...NOT_THERE, stands: 'nearly', differences: [] };
  return {
    stands: 'nearly',
    differences,
    asThere: asQuoted(here.text.slice(words[at.from]!.start, words[at.to - 1]!.end)),
    elsewhere: null,
  };
}
