/**
 * Where records that may be one work meet: many keys, of which none is enough alone and any one suffices. A key that very
 * many share says nothing and is left out.
 */
import { isSmall, type Seen } from './seen.ts';

/** FNV-1a, 32 bits. */
export function hash(text: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < text.length; i += 1) {
    h ^= text.charCodeAt(i);
    h = Math.imul(h, 0x01000193);
  }
  return h >>> 0;
}

/** How many of the rarest words of a title are paired. */
const RAREST = 4;

/** @param common how many records have a word in their title; by its length where that is not known */
export function blockKeys(s: Seen, common: (word: string) => number = (w) => 100 - w.length): string[] {
  const keys: string[] = [];
  for (const doi of s.dois) keys.push(`d${doi}`);
  for (const isbn of s.isbns) keys.push(`i${isbn}${s.form === 'chapter' ? (s.first ?? '') : ''}`);
  keys.push(...s.ids);
  if (s.url && s.url.length > 12) keys.push(`u${s.url}`);
  if (s.shelf) keys.push(`s${s.shelf}`);
  const telling = [...new Set(s.words.filter((w) => !isSmall(w)))].sort((a, b) => common(a) - common(b) || (a < b ? -1 : 1)); // prettier-ignore
  const rare = telling.slice(0, RAREST).sort();
  const longest = telling.toSorted((a, b) => b.length - a.length)[0];
  for (let i = 0; i < rare.length; i += 1)
    for (let j = i + 1; j < rare.length; j += 1) keys.push(`w${rare[i]} ${rare[j]}`);
  if (rare.length === 1) keys.push(`w${rare[0]}`);
  if (s.letters.length >= 10) {
    keys.push(`b${s.letters.slice(0, 14)}`, `e${s.letters.slice(-14)}`);
    keys.push(`m${s.words.slice(0, s.main).join('')}`);
  }
  const families = s.people.slice(0, 3).map((p) => p.family.slice(0, 5));
  for (const f of families) {
    if (s.year !== undefined) keys.push(`y${f}${s.year}`);
    if (s.first) keys.push(`p${f}${s.first}`);
    if (longest) keys.push(`f${f}${longest.slice(0, 5)}`);
  }
  if (s.volume && s.first) keys.push(`v${s.volume}:${s.first}:${s.container[0]?.[0] ?? ''}`);
  if (s.first && s.last && s.year !== undefined) keys.push(`g${s.first}-${s.last}:${s.year}`);
  return keys;
}
