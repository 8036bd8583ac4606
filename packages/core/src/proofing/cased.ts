/** A title set in a case that someone asks for. */
import { isShouting, respelt, sentenceCase, type CaseOptions } from './case.ts';

/** `as typed`: no style alters it. */
export const CASES = ['sentence', 'title', 'as typed'] as const;
export type TitleCasing = (typeof CASES)[number];

/** Small within a title, but for its first and last word and behind a colon (CSL 1.0.1, "Title case conversion"). */
const STOP = new Set('a an and as at but by down for from in into nor of on onto or over so the till to up via with yet'.split(' ')); // prettier-ignore
const WHOLE = /^<span class="nocase">([^<]*)<\/span>$/;

/** @param language of the title; sentence case is a matter of English, other languages keep what they have */
export function inCase(
  title: string,
  to: TitleCasing,
  { language, ...options }: CaseOptions & { language?: string | undefined } = {},
): string {
  const plain = title.replace(WHOLE, '$1');
  if (to === 'as typed') return /nocase/.test(title) ? title : `<span class="nocase">${plain}</span>`;
  if (to === 'title') return titleCase(plain, options);
  return language && !/^en/i.test(language) && !isShouting(plain) ? plain : sentenceCase(plain, options);
}

/** Title case as CSL describes it: great are all words but stop words; what is mixed or all great stays as it is. */
function titleCase(title: string, { keep = [] }: CaseOptions): string {
  const shouting = isShouting(title);
  const words = [...title.matchAll(/<[^>]+>|[\p{L}\p{N}][\p{L}\p{N}\p{M}'’.]*/gu)].filter((m) => !m[0].startsWith('<'));
  const last = words.at(-1)?.index;
  return respelt(title, words, keep, (word, i, at) => {
    const lower = word.toLowerCase();
    const free = i === 0 || at === last || /[:?!]\s*["'“‘(]*$/.test(title.slice(0, at));
    const great = (w: string): string => w.charAt(0).toUpperCase() + w.slice(1);
    if (STOP.has(lower) && !free) return lower;
    if (shouting) return great(lower);
    return word === lower ? great(word) : word;
  });
}
