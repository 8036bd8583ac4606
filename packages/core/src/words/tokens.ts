/** From a text to its tokens, and from a word to its stem. */
import { stemmer } from 'stemmer';

export interface Token {
  /** The form that is indexed. */
  stem: string;
  /** Place in the text: UTF-16 offsets. */
  start: number;
  end: number;
}

const WORD = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]|[\p{L}\p{N}\p{M}]+(?:['’][\p{L}\p{M}]+)*/gu;
const SPECIAL: Record<string, string> = { ß: 'ss', æ: 'ae', œ: 'oe', ø: 'o', đ: 'd', ð: 'd', þ: 'th', ł: 'l', ı: 'i' };

/** Lower case without accents; letters with a stroke and ligatures become their plain neighbours. */
export function fold(word: string): string {
  const lower = word.toLowerCase();
  if (/^[\x00-\x7f]*$/.test(lower)) return lower;
  return lower
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .replace(/[ßæœøđðþłı]/g, (c) => SPECIAL[c]!);
}

const stems = new Map<string, string>();

/** The indexed form of one word. English endings go; a possessive 's goes; numbers stay. */
export function stem(word: string): string {
  const known = stems.get(word);
  if (known !== undefined) return known;
  const folded = fold(word)
    .replace(/['’]s$/, '')
    .replace(/['’]/g, '');
  const out = /^[a-z]+$/.test(folded) && folded.length > 2 ? stemmer(folded) : folded;
  if (stems.size > 50_000) stems.clear();
  stems.set(word, out);
  return out;
}

/** The tokens of a text in order. */
export function tokens(text: string): Token[] {
  const out: Token[] = [];
  const word = new RegExp(WORD);
  for (let m = word.exec(text); m; m = word.exec(text)) {
    const s = stem(m[0]);
    if (s) out.push({ stem: s, start: m.index, end: m.index + m[0].length });
  }
  return out;
}
