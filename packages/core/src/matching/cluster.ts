/** Records into works: all pairs that meet are decided, and clusters are made of those pairs that hold from every side. */
import type { SourceRecord } from '../source/index.ts';
import { blockKeys } from './blocks.ts';
import { FEATURES } from './features.ts';
import { gramsShared } from './grams.ts';
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
  /** How much each word says among these records. */
  rarity: Rarity;
}

/** Two records are put together from here on. */
export const TOGETHER = 0.5;
/** A pair below is not worth a person's look. */
export const WORTH_A_LOOK = 0.08;
/** A block with more records in it says too little; of the larger ones, neighbours in order of title are compared. */
const LARGEST_BLOCK = 60;
const NEIGHBOURS = 12;

export interface MatchOptions {
  /** Told how many pairs of how many are decided. */
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
  const weights = new Map<string, number>();
  for (const [w, n] of counts) weights.set(w, Math.min(byLength(w), Math.max(0.3, Math.log(total / (n + 1)) * 0.6)));
  return { common, rarity: (w) => weights.get(w) ?? byLength(w) };
}

export function matchSeen(seen: readonly Seen[], { progress, apart }: MatchOptions = {}): Matched {
  const { rarity, common } = rarityIn(seen);
  const pairs: Pair[] = [];
  const scratch = new Float64Array(FEATURES.length);
  const candidates = candidatePairs(seen, common);
  for (const [done, pair] of candidates.entries()) {
    const [a, b] = [Math.floor(pair / MOST_RECORDS), pair % MOST_RECORDS];
    if (progress && done % 20_000 === 0) progress(done, candidates.length);
    if (apart?.(a, b)) continue;
    const { probability } = decide(seen[a]!, seen[b]!, rarity, scratch);
    if (probability >= WORTH_A_LOOK) pairs.push({ a, b, probability });
  }
  pairs.sort((x, y) => y.probability - x.probability || x.a - y.a || x.b - y.b);
  return { ...clustersOf(seen, pairs, rarity, apart), pairs, rarity };
}

/** Titles with less in common are those of one work only where an identifier or its place in a journal says so. */
const LEAST_SHARED = 0.55;

function isHopeless(a: Seen, b: Seen): boolean {
  if (gramsShared(a.grams, b.grams) >= LEAST_SHARED) return false;
  if (a.volume !== undefined && a.volume === b.volume && a.first !== undefined && a.first === b.first) return false;
  const share = (x: readonly string[], y: readonly string[]): boolean => x.some((v) => y.includes(v));
  return !share(a.dois, b.dois) && !share(a.ids, b.ids) && !share(a.isbns, b.isbns) && (!a.url || a.url !== b.url);
}

/** Numbers that are written one after another, however many they become. */
class Numbers {
  private list = new Float64Array(1 << 16);
  private n = 0;
  push(value: number): void {
    if (this.n === this.list.length) {
      const more = new Float64Array(this.n * 2);
      more.set(this.list);
      this.list = more;
    }
    this.list[this.n++] = value;
  }
  sorted(): Float64Array {
    return this.list.subarray(0, this.n).sort();
  }
}

/** A record, or two, in one number: 21 bits each. */
const MOST_RECORDS = 2 ** 21;

/** Pairs that share a key and are not hopeless, each once: the lower record times `MOST_RECORDS`, and the other. */
function candidatePairs(seen: readonly Seen[], common: (word: string) => number): Float64Array {
  // 32 bits of a key's hash, 21 of the record.
  const entries = new Numbers();
  for (const [i, s] of seen.entries()) for (const key of blockKeys(s, common)) entries.push(key * MOST_RECORDS + i);
  const sorted = entries.sorted();
  const pairs = new Numbers();
  const meet = (x: number, y: number): void => {
    if (!isHopeless(seen[x]!, seen[y]!)) pairs.push(Math.min(x, y) * MOST_RECORDS + Math.max(x, y));
  };
  for (let from = 0; from < sorted.length;) {
    const key = Math.floor(sorted[from]! / MOST_RECORDS);
    const block: number[] = [];
    let to = from;
    for (; to < sorted.length && Math.floor(sorted[to]! / MOST_RECORDS) === key; to += 1) {
      const record = sorted[to]! % MOST_RECORDS;
      // Equal keys of one record stand side by side.
      if (record !== block.at(-1)) block.push(record);
    }
    const large = block.length > LARGEST_BLOCK;
    if (large) block.sort((x, y) => (seen[x]!.letters < seen[y]!.letters ? -1 : 1));
    for (let i = 0; i < block.length; i += 1) {
      const end = large ? Math.min(block.length, i + NEIGHBOURS) : block.length;
      for (let j = i + 1; j < end; j += 1) meet(block[i]!, block[j]!);
    }
    from = to;
  }
  const all = pairs.sorted();
  let n = 0;
  for (const pair of all) if (n === 0 || pair !== all[n - 1]) all[n++] = pair;
  return all.subarray(0, n);
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
export function standingIn(
  seen: readonly Seen[],
  { clusters, clusterOf, rarity }: Matched,
  one: number,
): Decision | undefined {
  let best: Decision | undefined;
  for (const m of clusters[clusterOf[one]!]!) {
    if (m === one) continue;
    const d = decide(seen[Math.min(m, one)]!, seen[Math.max(m, one)]!, rarity);
    if (!best || d.probability > best.probability) best = d;
  }
  return best;
}
