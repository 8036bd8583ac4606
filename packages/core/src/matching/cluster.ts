/** Records into works: all pairs that meet are decided, and clusters are made of those pairs that hold from every side. */
import type { SourceRecord } from '../source/index.ts';
import { blockKeys, hash } from './blocks.ts';
import { decide, type Decision } from './decide.ts';
import { see, type Seen } from './seen.ts';
import { byLength, type Rarity } from './titles.ts';

export interface Pair {
  a: number;
  b: number;
  probability: number;
}

export interface Matched {
  /** For each record the number of its cluster; clusters are numbered as their first records come. */
  clusterOf: Int32Array;
  clusters: number[][];
  /** Pairs that are likely enough to be looked at, the surest first, whether they were put together or not. */
  pairs: Pair[];
}

/** Two records are put together from here on. */
export const TOGETHER = 0.5;
/** A pair below is not worth a person's look. */
export const WORTH_A_LOOK = 0.08;
/** A block with more records in it says too little; of the larger ones, neighbours in order of title are compared. */
const LARGEST_BLOCK = 60;
const NEIGHBOURS = 12;

export interface MatchOptions {
  /** Told how many records of how many are done. */
  progress?: (done: number, total: number) => void;
  /** Pairs a person said are two works. */
  apart?: (a: number, b: number) => boolean;
}

export function matchAll(records: readonly SourceRecord[], options: MatchOptions = {}): Matched {
  const seen = records.map(see);
  return matchSeen(seen, options);
}

/** How common words are among these titles; a word that is rare everywhere says what its length says. */
export function rarityIn(seen: readonly Seen[]): { rarity: Rarity; common: (word: string) => number } {
  const counts = new Map<string, number>();
  for (const s of seen) for (const w of new Set(s.words)) counts.set(w, (counts.get(w) ?? 0) + 1);
  const total = seen.length;
  const common = (word: string): number => counts.get(word) ?? 0;
  // Few records tell little of how common a word is.
  if (total < 200) return { rarity: byLength, common };
  return { common, rarity: (w) => Math.min(byLength(w), Math.max(0.3, Math.log(total / (common(w) + 1)) * 0.6)) };
}

export function matchSeen(seen: readonly Seen[], { progress, apart }: MatchOptions = {}): Matched {
  const { rarity, common } = rarityIn(seen);
  const pairs: Pair[] = [];
  const judged = new Set<number>();
  const total = seen.length;
  for (const [done, [a, b]] of candidatePairs(seen, common)) {
    const key = a * total + b;
    if (judged.has(key)) continue;
    judged.add(key);
    if (apart?.(a, b)) continue;
    const { probability } = decide(seen[a]!, seen[b]!, rarity);
    if (probability >= WORTH_A_LOOK) pairs.push({ a, b, probability });
    if (progress && judged.size % 20_000 === 0) progress(done, total);
  }
  pairs.sort((x, y) => y.probability - x.probability || x.a - y.a || x.b - y.b);
  return { ...clustersOf(seen, pairs, rarity, apart), pairs };
}

/** Pairs that share a key, each perhaps oftener, with how far through the records it is. */
function* candidatePairs(
  seen: readonly Seen[],
  common: (word: string) => number,
): Generator<[done: number, pair: [number, number]]> {
  // A key and a record in one number: 32 bits of hash, 21 of the record.
  const SHIFT = 2 ** 21;
  let entries = new Float64Array(seen.length * 16);
  let n = 0;
  for (const [i, s] of seen.entries())
    for (const key of blockKeys(s, common)) {
      if (n === entries.length) {
        const more = new Float64Array(n * 2);
        more.set(entries);
        entries = more;
      }
      entries[n] = hash(key) * SHIFT + i;
      n += 1;
    }
  const sorted = entries.subarray(0, n).sort();
  for (let from = 0; from < n;) {
    const key = Math.floor(sorted[from]! / SHIFT);
    let to = from + 1;
    while (to < n && Math.floor(sorted[to]! / SHIFT) === key) to += 1;
    let block = Array.from(new Set(Array.from(sorted.subarray(from, to), (e) => e % SHIFT)));
    const done = Math.floor((from / n) * seen.length);
    if (block.length > LARGEST_BLOCK) {
      block = block.sort((x, y) => (seen[x]!.letters < seen[y]!.letters ? -1 : 1));
      for (let i = 0; i < block.length; i += 1)
        for (let j = i + 1; j < Math.min(block.length, i + NEIGHBOURS); j += 1)
          yield [done, [Math.min(block[i]!, block[j]!), Math.max(block[i]!, block[j]!)]];
    } else
      for (let i = 0; i < block.length; i += 1)
        for (let j = i + 1; j < block.length; j += 1) yield [done, [block[i]!, block[j]!]];
    from = to;
  }
}

/** The largest cluster all of whose pairs are looked at when two are put together. */
const CHECKED = 12;
/** Pairs across that are less likely than this speak against putting two clusters together. */
const AGAINST = 0.05;

function clustersOf(
  seen: readonly Seen[],
  pairs: readonly Pair[],
  rarity: Rarity,
  apart?: MatchOptions['apart'],
): { clusterOf: Int32Array; clusters: number[][] } {
  const owner = Int32Array.from(seen.keys());
  const members = new Map<number, number[]>();
  const of = (root: number): number[] => members.get(root) ?? [root];
  for (const { a, b, probability } of pairs) {
    if (probability < TOGETHER) break;
    const [x, y] = [owner[a]!, owner[b]!];
    if (x === y || !holds(of(x), of(y))) continue;
    const joined = [...of(x), ...of(y)];
    for (const m of of(y)) owner[m] = x;
    members.set(x, joined);
    members.delete(y);
  }
  const numbers = new Map<number, number>();
  const clusters: number[][] = [];
  const clusterOf = owner.map((root, i) => {
    let number = numbers.get(root);
    if (number === undefined) {
      number = clusters.length;
      numbers.set(root, number);
      clusters.push([]);
    }
    clusters[number]!.push(i);
    return number;
  });
  return { clusterOf, clusters };

  /** Each pair across must be possible: nothing says outright that they are two works, and most are likely. */
  function holds(one: number[], other: number[]): boolean {
    if (one.length === 1 && other.length === 1) return true;
    if (apart && one.some((i) => other.some((j) => apart(i, j)))) return false;
    let against = 0;
    let looked = 0;
    for (const i of one.slice(0, CHECKED))
      for (const j of other.slice(0, CHECKED)) {
        const { probability, veto } = decide(seen[i]!, seen[j]!, rarity);
        looked += 1;
        if (veto) return false;
        if (probability < AGAINST) against += 1;
      }
    return against * 3 <= looked;
  }
}

/** Why a record stands in its cluster: the surest of its pairs there. */
export function standingIn(seen: readonly Seen[], members: readonly number[], one: number): Decision | undefined {
  let best: Decision | undefined;
  for (const m of members) {
    if (m === one) continue;
    const d = decide(seen[Math.min(m, one)]!, seen[Math.max(m, one)]!);
    if (!best || d.probability > best.probability) best = d;
  }
  return best;
}
