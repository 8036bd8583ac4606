/** What the records of a workspace tell of each other: how people, containers and words are written elsewhere. */
import { wordForWord } from '../matching/containers.ts';
import { yearOf, type Name, type SourceRecord } from '../source/index.ts';
import { fold } from '../words/index.ts';

export interface Among {
  /** Full given names by family name and first letter; undefined where several people are meant. */
  givenOf(family: string, given: string): string | undefined;
  /** How a person's full name is written most often, accents and capitals aside, where it is written otherwise here. */
  spellingOf(name: Name): Name | undefined;
  /** The year of a volume of a container: as others of the volume say, or as its volumes follow each other. */
  yearOfVolume(record: SourceRecord): number | undefined;
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

/** Two parts of a name, accents, capitals and signs aside. */
const wholeName = ({ family = '', given = '' }: Name): string => `${squeezed(family)} ${squeezed(given)}`;
const accents = (text: string): number => (text.normalize('NFD').match(/\p{M}/gu) ?? []).length;
const isShouted = (name: string): boolean => name.length > 2 && name === name.toUpperCase();

const wordsOf = (container: string): string[] =>
  (fold(container).match(/[\p{L}\p{N}]+/gu) ?? []).filter(
    (w) => !/^(?:of|the|and|in|for|on|de|des|der|und|et)$/.test(w),
  );
/** What a name has in common with its abbreviation: how each word begins, and the last with two letters. */
const beginningsOf = (words: readonly string[]): string => `${words.map((w) => w[0]).join('')} ${words.at(-1)?.slice(0, 2) ?? ''}`; // prettier-ignore
/** Two records of a volume, or four of a container whose volumes follow the years, are enough to tell. */
const OF_VOLUME = 2;
const OF_CONTAINER = 4;
const MOSTLY = 0.8;

/** How often each value was met, by a key. */
type Counts<V> = Map<string, Map<V, number>>;
function count<V>(map: Counts<V>, key: string, value: V): void {
  const counts = map.get(key) ?? new Map<V, number>();
  counts.set(value, (counts.get(value) ?? 0) + 1);
  map.set(key, counts);
}

/** Volumes of containers with their years. */
class Volumes {
  private readonly years: Counts<number> = new Map();
  /** How far the years of a container are from the numbers of its volumes. */
  private readonly offsets: Counts<number> = new Map();

  private of(record: SourceRecord): { container: string; volume: number; year: number } | undefined {
    const [container, year] = [record['container-title'], yearOf(record.issued)];
    if (!container || year === undefined || !/^\d{1,4}$/.test(record.volume ?? '')) return undefined;
    return { container: squeezed(container), volume: Number(record.volume), year };
  }

  add(record: SourceRecord): void {
    const found = this.of(record);
    if (!found) return;
    const { container, volume, year } = found;
    count(this.years, `${container} ${volume}`, year);
    count(this.offsets, container, year - volume);
  }

  /** What most others say, this one left out. */
  private most(said: Map<number, number> | undefined, own: number, least: number): number | undefined {
    const counts = [...(said ?? [])].map(([value, n]) => [value, value === own ? n - 1 : n] as const);
    const all = counts.reduce((sum, [, n]) => sum + n, 0);
    const best = counts.reduce((x, y) => (y[1] > x[1] ? y : x), [0, 0] as const);
    return all >= least && best[1] >= all * MOSTLY ? best[0] : undefined;
  }

  yearOf(record: SourceRecord): number | undefined {
    const found = this.of(record);
    if (!found) return undefined;
    const { container, volume, year } = found;
    const same = this.most(this.years.get(`${container} ${volume}`), year, OF_VOLUME);
    if (same !== undefined) return same;
    const usual = this.most(this.offsets.get(container), year - volume, OF_CONTAINER);
    return usual === undefined ? undefined : usual + volume;
  }
}

/** @param records each is read once */
export function amongOf(records: Iterable<SourceRecord>): Among {
  const given: Counts<string> = new Map();
  const people: Counts<string> = new Map();
  const byIssn: Counts<string> = new Map();
  const spelt: Counts<string> = new Map();
  const byBeginnings: Counts<string> = new Map();
  const capital = new Map<string, number>();
  const small = new Map<string, number>();
  const behind = new Set<string>();
  const volumes = new Volumes();
  const taken = new Map<string, string[]>();
  const wordsIn = (container: string): string[] => {
    let words = taken.get(container);
    if (!words) taken.set(container, (words = wordsOf(container)));
    return words;
  };
  for (const r of records) {
    for (const n of [...(r.author ?? []), ...(r.editor ?? [])] as Name[])
      if (n.family && n.given && !isInitials(n.given)) {
        count(given, key(n.family, n.given), n.given);
        count(people, wholeName(n), `${n.family}\n${n.given}`);
      }
    volumes.add(r);
    const container = r['container-title'];
    if (container) {
      if (r.ISSN) count(byIssn, r.ISSN.split(/[\s,;]+/)[0]!, container);
      count(spelt, squeezed(container), container);
      count(byBeginnings, beginningsOf(wordsIn(container)), container);
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
    const words = wordsIn(own);
    const alike = [...counts].filter(([c]) => c === own || wordForWord(words, wordsIn(c)));
    const longest = Math.max(...alike.map(([c]) => wordsIn(c).join('').length));
    // Of those as long as the longest the usual one: the others are slips of it.
    const full = alike.filter(([c]) => wordsIn(c).join('').length >= longest - 2);
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
    spellingOf(name) {
      const counts = name.family && name.given && !isInitials(name.given) ? people.get(wholeName(name)) : undefined;
      if (!counts || counts.size < 2) return undefined;
      const [spelt, n] = [...counts].sort((a, b) => b[1] - a[1] || accents(b[0]) - accents(a[0]))[0]!;
      const own = counts.get(`${name.family}\n${name.given}`) ?? 0;
      const [family, given] = spelt.split('\n') as [string, string];
      // Names in capitals are another rule's; of two ways that are as usual the one with its accents is right.
      if (isShouted(name.family!) || isShouted(family) || (family === name.family && given === name.given))
        return undefined;
      return n > own || (n === own && accents(spelt) > 0) ? { ...name, family, given } : undefined;
    },
    yearOfVolume: (record) => volumes.yearOf(record),
    containerOf(record) {
      const own = record['container-title'];
      if (!own) return undefined;
      const known = usual.get(`${record.ISSN ?? ''} ${own}`);
      if (known !== undefined) return known;
      const issn = record.ISSN?.split(/[\s,;]+/)[0];
      const found = fullOf(own, issn ? byIssn.get(issn) : undefined) ?? most(spelt.get(squeezed(own))) ?? own;
      const full = fullOf(found, byBeginnings.get(beginningsOf(wordsIn(found)))) ?? found;
      usual.set(`${record.ISSN ?? ''} ${own}`, full);
      return full;
    },
    isProper: (word, before, after) =>
      (capital.get(fold(word)) ?? 0) > (small.get(fold(word)) ?? 0) ||
      (before !== undefined && behind.has(`${fold(before)} ${fold(word)}`)) ||
      (after !== undefined && behind.has(`${fold(word)} ${fold(after)}`)),
  };
}
