/** What the records of a workspace tell of each other: how people, containers and words are written elsewhere. */
import { wordForWord } from '../matching/containers.ts';
import type { Name, SourceRecord } from '../source/index.ts';
import { fold } from '../words/index.ts';

export interface Among {
  /** Full given names by family name and first letter; undefined where several people are meant. */
  givenOf(family: string, given: string): string | undefined;
  /** How a container is written in full or most often, of those with the same ISSN, the same letters, or words that abbreviate it. */
  containerOf(record: SourceRecord): string | undefined;
  /** Whether a word stands with a capital in the midst of other titles, by itself or beside the one before or after it. */
  isProper(word: string, before?: string, after?: string): boolean;
}

const key = (family: string, given: string): string => `${fold(family)} ${fold(given)[0] ?? ''}`;
const isInitials = (given: string): boolean => /^(?:\p{Lu}\.?[\s-]?)+$/u.test(given.trim());
const isGreat = (word: string): boolean => /^\p{Lu}/u.test(word);
/** The letters and digits of a name, by which its spellings are told to be one. */
export const squeezed = (text: string): string => fold(text).replace(/[^\p{L}\p{N}]+/gu, '');

const wordsOf = (container: string): string[] =>
  (fold(container).match(/[\p{L}\p{N}]+/gu) ?? []).filter(
    (w) => !/^(?:of|the|and|in|for|on|de|des|der|und|et)$/.test(w),
  );
const initialsOf = (container: string): string => wordsOf(container).map((w) => w[0]).join(''); // prettier-ignore
/** @param records each is read once */
export function amongOf(records: Iterable<SourceRecord>): Among {
  const given = new Map<string, Map<string, number>>();
  const byIssn = new Map<string, Map<string, number>>();
  const spelt = new Map<string, Map<string, number>>();
  const byInitials = new Map<string, Map<string, number>>();
  const capital = new Map<string, number>();
  const small = new Map<string, number>();
  const behind = new Set<string>();
  const count = <K>(map: Map<K, Map<string, number>>, k: K, value: string): void => {
    const counts = map.get(k) ?? new Map<string, number>();
    counts.set(value, (counts.get(value) ?? 0) + 1);
    map.set(k, counts);
  };
  for (const r of records) {
    for (const n of [...(r.author ?? []), ...(r.editor ?? [])] as Name[])
      if (n.family && n.given && !isInitials(n.given)) count(given, key(n.family, n.given), n.given);
    const container = r['container-title'];
    if (container) {
      if (r.ISSN) count(byIssn, r.ISSN.split(/[\s,;]+/)[0]!, container);
      count(spelt, squeezed(container), container);
      count(byInitials, initialsOf(container), container);
    }
    const words = (r.title ?? '').match(/\p{L}[\p{L}'’-]*/gu) ?? [];
    const capitals = words.slice(1).filter(isGreat).length;
    // A title that writes most words great tells nothing of any.
    if (words.length > 3 && capitals / (words.length - 1) < 0.5)
      for (const [i, w] of words.entries()) {
        if (i === 0) continue;
        const [great, word, before] = [isGreat(w), fold(w), words[i - 1]!];
        // "Mallow Creek" makes a name of "Mallow", and of "creek" behind it alone.
        if (great && isGreat(before) && i > 1) behind.add(`${fold(before)} ${word}`);
        else if (great) capital.set(word, (capital.get(word) ?? 0) + 1);
        else small.set(word, (small.get(word) ?? 0) + 1);
      }
  }
  const usual = new Map<string, string>();
  /** Of several names of one container the one that is written out most. */
  const fullOf = (own: string, counts: Map<string, number> | undefined): string | undefined => {
    if (!counts || counts.size < 2) return undefined;
    const words = wordsOf(own);
    const alike = [...counts].filter(([c]) => c === own || wordForWord(words, wordsOf(c)));
    const longest = Math.max(...alike.map(([c]) => wordsOf(c).join('').length));
    // Of those as long as the longest the usual one: the others are slips of it.
    const full = alike.filter(([c]) => wordsOf(c).join('').length >= longest - 2);
    return full.sort((a, b) => b[1] - a[1] || b[0].length - a[0].length)[0]?.[0];
  };
  const most = (counts: Map<string, number> | undefined): string | undefined =>
    counts && [...counts].sort((a, b) => b[1] - a[1] || b[0].length - a[0].length)[0]![0];
  return {
    givenOf(family, initials) {
      const found = given.get(key(family, initials));
      if (!found) return undefined;
      const names = new Set([...found.keys()].map((n) => fold(n).split(/[\s.]+/)[0]!));
      return names.size === 1 ? most(found) : undefined;
    },
    containerOf(record) {
      const own = record['container-title'];
      if (!own) return undefined;
      const known = usual.get(`${record.ISSN ?? ''} ${own}`);
      if (known !== undefined) return known;
      const issn = record.ISSN?.split(/[\s,;]+/)[0];
      const found = fullOf(own, issn ? byIssn.get(issn) : undefined) ?? most(spelt.get(squeezed(own))) ?? own;
      const full = fullOf(found, byInitials.get(initialsOf(found))) ?? found;
      usual.set(`${record.ISSN ?? ''} ${own}`, full);
      return full;
    },
    isProper: (word, before, after) =>
      (capital.get(fold(word)) ?? 0) > (small.get(fold(word)) ?? 0) ||
      (before !== undefined && behind.has(`${fold(before)} ${fold(word)}`)) ||
      (after !== undefined && behind.has(`${fold(word)} ${fold(after)}`)),
  };
}
