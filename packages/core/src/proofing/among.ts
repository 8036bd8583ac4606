/** What the records of a workspace tell of each other: how people, containers and words are written elsewhere. */
import type { Name, SourceRecord } from '../source/index.ts';
import { fold } from '../words/index.ts';

export interface Among {
  /** Full given names by family name and first letter; undefined where several people are meant. */
  givenOf(family: string, given: string): string | undefined;
  /** How a container is written most often, of those with the same ISSN or the same words. */
  containerOf(record: SourceRecord): string | undefined;
  /** Whether a word stands with a capital in the midst of other titles, by itself or behind the one before it. */
  isProper(word: string, before?: string): boolean;
}

const key = (family: string, given: string): string => `${fold(family)} ${fold(given)[0] ?? ''}`;
const isInitials = (given: string): boolean => /^(?:\p{Lu}\.?[\s-]?)+$/u.test(given.trim());
const isGreat = (word: string): boolean => /^\p{Lu}/u.test(word);
const squeezed = (text: string): string => fold(text).replace(/[^\p{L}\p{N}]+/gu, '');

/** @param records each is read once */
export function amongOf(records: Iterable<SourceRecord>): Among {
  const given = new Map<string, Map<string, number>>();
  const byIssn = new Map<string, Map<string, number>>();
  const spelt = new Map<string, Map<string, number>>();
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
      const container = record['container-title'];
      if (!container) return undefined;
      const issn = record.ISSN?.split(/[\s,;]+/)[0];
      return (issn && most(byIssn.get(issn))) || most(spelt.get(squeezed(container)));
    },
    isProper: (word, before) =>
      (capital.get(fold(word)) ?? 0) > (small.get(fold(word)) ?? 0) ||
      (before !== undefined && behind.has(`${fold(before)} ${fold(word)}`)),
  };
}
