/**
 * Where records that may be one work meet: many keys, of which none is enough alone and any one suffices. A key that very
 * many share says nothing and is left out.
 */
import type { SourceRecord } from '../source/index.ts';
import { isSmall, see, type Seen } from './seen.ts';

export const SEED = 0x811c9dc5;
/** Between the parts of a key. */
const GAP = 31;

/** FNV-1a, 32 bits, carried on over several texts. */
export function on(h: number, text: string): number {
  for (let i = 0; i < text.length; i += 1) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return Math.imul(h ^ GAP, 0x01000193);
}

/** How many of the longest words of a title are paired. */
const PAIRED = 4;

export interface BlockKeys {
  /** Of identifiers and addresses. */
  identifiers: number[];
  others: number[];
}

/** The keys of a record, each a number of 32 bits: its kind and its parts, hashed. Long words are taken for rare ones. */
export function blockKeys(s: Seen): BlockKeys {
  const identifiers: number[] = [];
  const others: number[] = [];
  let keys = identifiers;
  const key = (kind: string, one: string, other?: string): void => {
    const h = on(on(SEED, kind), one);
    keys.push((other === undefined ? h : on(h, other)) >>> 0);
  };
  for (const doi of s.dois) key('doi', doi);
  for (const isbn of s.isbns) key('isbn', isbn, s.form === 'chapter' ? s.first : undefined);
  for (const id of s.ids) key('id', id);
  if (s.url && s.url.length > 12) key('url', s.url);
  keys = others;
  if (s.shelf) key('shelf', s.shelf);
  const telling = [...new Set(s.words)].filter((word) => !isSmall(word));
  telling.sort((a, b) => b.length - a.length || (a < b ? -1 : 1));
  const rare = telling.slice(0, PAIRED).sort();
  const longest = telling[0] ?? '';
  for (let i = 0; i < rare.length; i += 1) for (let j = i + 1; j < rare.length; j += 1) key('words', rare[i]!, rare[j]);
  if (rare.length === 1) key('word', rare[0]!);
  if (s.letters.length >= 10) {
    key('begins', s.letters.slice(0, 14));
    key('ends', s.letters.slice(-14));
    key('main', s.words.slice(0, s.main).join(''));
  }
  for (const person of s.people.slice(0, 3)) {
    const family = person.family.slice(0, 5);
    if (s.year !== undefined) key('year', family, String(s.year));
    if (s.first) key('page', family, s.first);
    if (longest) key('longest', family, longest.slice(0, 5));
  }
  if (s.volume && s.first) key('place', s.volume, `${s.first}:${s.container[0]?.[0] ?? ''}`);
  if (s.first && s.last && s.year !== undefined) key('pages', `${s.first}-${s.last}`, String(s.year));
  return { identifiers, others };
}

/** All keys of a record, as whole numbers of 32 bits with a sign, each once. */
export function meetingKeys(record: SourceRecord): number[] {
  const { identifiers, others } = blockKeys(see(record));
  return [...new Set([...identifiers, ...others])].map((key) => key | 0);
}
