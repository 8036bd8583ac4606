/**
 * Sentence case: all small but the first word, and what has its capitals for a reason: names, acronyms, formulas, numerals.
 */
import type { English } from '../english/index.ts';
import { properWords } from './proper.ts';

const isRoman = (word: string): boolean =>
  /^(?=[IVXLCDM]{2,})M{0,3}(?:CM|CD|D?C{0,3})(?:XC|XL|L?X{0,3})(?:IX|IV|V?I{0,3})$/.test(word);
/** Capitals inside, digits, or all capitals in a title that is not all in capitals: pH, mRNA, DNA, H2O, McAdam, O’Neill. */
const isMarked = (word: string, shouting: boolean): boolean =>
  /\d/.test(word)
    ? /\p{Lu}/u.test(word) && !shouting
    : !shouting && (/.\p{Lu}/u.test(word) || /^\p{Lu}\.(?:\p{Lu}\.)+$/u.test(word));

export interface CaseOptions {
  /** Names the caller knows of. */
  isProper?: (word: string, before?: string, after?: string) => boolean;
  /** The words of English; without them a name no one knows of is not told from them. */
  english?: English | undefined;
  /** Words that keep their form whatever else, as a workspace lists them. */
  keep?: readonly string[];
}

const WORD = /(?:\p{L}\.){2,}|[\p{L}\p{N}][\p{L}\p{N}\p{M}'’]*/gu;

const isSmall = (code: number): boolean => code >= 97 && code <= 122;

/** True where a quarter of all signs are small letters of ASCII within words: most titles are told by that. */
function isQuiet(title: string): boolean {
  let small = 0;
  for (let i = 1; i < title.length; i += 1)
    if (isSmall(title.charCodeAt(i)) && isSmall(title.charCodeAt(i - 1) | 32)) small += 1;
  return small * 4 > title.length && !title.includes('<');
}

/**
 * True where hardly a small letter stands in it and there are enough to tell. The first of each word says nothing, since
 * setting in another case alters it: what was told of a title is still so when it has been set.
 */
export function isShouting(title: string): boolean {
  if (isQuiet(title)) return false;
  const words = title.replace(/<[^>]+>/g, '').match(WORD) ?? [];
  const letters = words.flatMap((w) => [...w].slice(1)).filter((l) => /[\p{Lu}\p{Ll}\p{Lt}]/u.test(l));
  const small = letters.filter((l) => /\p{Ll}/u.test(l)).length;
  return letters.length >= 6 && small / letters.length < 0.12;
}

const LITTLE =
  /^(?:a|an|the|and|or|nor|but|of|in|on|at|to|for|from|by|with|as|into|over|under|vs?|via|per|its?|is|are|be|up|off)$/i;

/** True where nearly all words that carry a meaning begin great, and there are enough to tell. */
export function isTitleCase(title: string): boolean {
  const words = (title.match(/\p{L}[\p{L}'’]*/gu) ?? []).slice(1).filter((w) => !LITTLE.test(w) && w.length > 1);
  const great = words.filter((w) => /^\p{Lu}/u.test(w)).length;
  return words.length >= 3 && great / words.length >= 0.8;
}

/** What is to keep its case: a stretch said so, the name of a species in italics; and tags, which are no words. */
const KEPT = /<span class="nocase">.*?<\/span>|<i>\p{Lu}\p{Ll}+ \p{Ll}[^<]*<\/i>|<\/?[a-zA-Z][^>]*>/gu;

export function sentenceCase(title: string, { isProper = () => false, english, keep = [] }: CaseOptions = {}): string {
  const shouting = isShouting(title);
  const tags = [...title.matchAll(KEPT)].map((m) => [m.index, m.index + m[0].length] as const); // prettier-ignore
  const words = [...title.matchAll(WORD)].filter((m) => !tags.some(([from, to]) => m.index >= from && m.index < to));
  const proper = properWords(
    words.map(({ 0: word, index }) => {
      const text = word.replace(/['’]s?$/i, '');
      return {
        text,
        lower: text.toLowerCase(),
        great: /^\p{Lu}/u.test(text),
        tied: title[index + word.length] === '-',
      };
    }),
    { isProper, english, shouting },
  );
  return respelt(title, words, keep, (word, i, at) => {
    const before = title.slice(0, at).replace(/<[^>]+>/g, '');
    // The first word, and the first of what is quoted or asked before.
    const begins = i === 0 || /[.?!]\s+["'“‘«(]*$/.test(before) || /[—]\s*$/.test(before);
    return cased(word, { begins, proper: proper[i]!, shouting });
  });
}

/** The title with each of the words written anew; those that are kept keep their form. */
export function respelt(
  title: string,
  words: readonly RegExpExecArray[],
  keep: readonly string[],
  anew: (word: string, i: number, at: number) => string,
): string {
  const kept = new Map(keep.map((k) => [k.toLowerCase(), k]));
  let out = '';
  let end = 0;
  for (const [i, { 0: word, index }] of words.entries()) {
    out += title.slice(end, index) + (kept.get(word.toLowerCase()) ?? anew(word, i, index));
    end = index + word.length;
  }
  return out + title.slice(end);
}

function cased(word: string, as: { begins: boolean; proper: boolean; shouting: boolean }): string {
  const lower = word.toLowerCase();
  const great = lower.charAt(0).toUpperCase() + lower.slice(1);
  if (isMarked(word, as.shouting)) return word;
  if (isRoman(word) && (!as.shouting || word.length > 1) && !NO_NUMERAL.test(word)) return word;
  if (lower === 'i' || (/^\p{Lu}$/u.test(word) && !as.shouting && lower !== 'a')) return word;
  return as.proper || as.begins ? great : lower;
}

/** Words that are written like Roman numerals. */
const NO_NUMERAL = /^(?:MIX|DID|CIVIL|MILD|DIM|LID|MID|VIM|MILL|MI|DI|LI|CD|MD|CV)$/;
