/** Records into works: all pairs that meet are decided, and clusters are made of those pairs that hold from every side. */
import type { SourceRecord } from '../source/index.ts';
import { decide, type Decision } from './decide.ts';
import { FEATURES } from './features.ts';
import { Meeting, MOST_RECORDS } from './meeting.ts';
import { see, type Seen } from './seen.ts';

export interface Pair {
  a: number;
  b: number;
  probability: number;
}

export interface Clusters {
  /** For each record the number of its cluster; clusters are numbered as their first records come. */
  clusterOf: Int32Array;
  clusters: number[][];
}

export interface Matched extends Clusters {
  /** Pairs that are likely enough to be looked at, the surest first, whether they were put together or not. */
  pairs: Pair[];
  by: Decides;
}

/** Decides two records, by their places. */
export type Decides = (a: number, b: number) => Decision;

/** Two records are put together from here on. */
export const TOGETHER = 0.5;
/** A pair below is not worth a person's look. */
export const WORTH_A_LOOK = 0.08;

/** A list of records, or what gives them one by one where they are too many to be held. */
export interface Records {
  readonly length: number;
  at(index: number): SourceRecord | undefined;
}

export interface MatchOptions {
  /** Told how much of how much is done; what it throws ends the work. */
  progress?: (done: number, total: number) => void;
  /** Pairs a person said are two works. */
  apart?: (a: number, b: number) => boolean;
}

/** @throws RangeError of more than two million records */
export function matchAll(records: Records, options: MatchOptions = {}): Matched {
  const seen = seenOf(records);
  const pairs = likelyPairs(records, seen, options);
  const by: Decides = (a, b) => decide(seen(a), seen(b));
  return { ...clustersOf(records.length, by, pairs, options.apart), pairs, by };
}

/** So many records at most are held as they were seen; the others are seen again where they are met. */
const HELD = 40_000;

/** Each record as it is seen, kept for the next time while there is room. */
export function seenOf(records: Records): (at: number) => Seen {
  // What was not asked for since half of the room was filled gives way.
  let [fresh, older] = [new Map<number, Seen>(), new Map<number, Seen>()];
  return (at) => {
    let seen = fresh.get(at);
    if (seen) return seen;
    seen = older.get(at) ?? see(records.at(at)!);
    if (fresh.size >= HELD / 2) [fresh, older] = [new Map(), fresh];
    fresh.set(at, seen);
    return seen;
  };
}

/** Progress is told after so many. */
const STEP = 5000;

/** Pairs worth a look, the surest first. */
function likelyPairs(records: Records, seen: (at: number) => Seen, { progress, apart }: MatchOptions): Pair[] {
  const size = records.length;
  const meeting = new Meeting();
  // Of very many, most are met by nobody: they are not kept as they were seen.
  const once = size > HELD ? (at: number): Seen => see(records.at(at)!) : seen;
  for (let i = 0; i < size; i += 1) {
    // Seeing them is half of it.
    if (i % STEP === 0) progress?.(i, size * 2);
    meeting.add(once(i));
  }
  const pairs: Pair[] = [];
  const scratch = new Float64Array(FEATURES.length);
  const met = meeting.pairs();
  for (const [done, pair] of met.entries()) {
    const [a, b] = [Math.floor(pair / MOST_RECORDS), pair % MOST_RECORDS];
    if (done % STEP === 0) progress?.(size + (done / met.length) * size, size * 2);
    if (apart?.(a, b)) continue;
    const { probability } = decide(seen(a), seen(b), scratch);
    if (probability >= WORTH_A_LOOK) pairs.push({ a, b, probability });
  }
  return pairs.sort(bySurest);
}

const bySurest = (x: Pair, y: Pair): number => y.probability - x.probability || x.a - y.a || x.b - y.b;

/** The largest cluster all of whose pairs are looked at when two are put together. */
const CHECKED = 12;
/** Pairs across that are less likely than this speak against putting two clusters together. */
const AGAINST = 0.05;

/**
 * @param size how many records there are
 * @param pairs the surest first
 */
export function clustersOf(size: number, by: Decides, pairs: readonly Pair[], apart?: MatchOptions['apart']): Clusters {
  const owner = Int32Array.from({ length: size }, (_, i) => i);
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
        const { probability, veto } = by(i, j);
        looked += 1;
        if (veto) return false;
        if (probability < AGAINST) against += 1;
      }
    return against * 3 <= looked;
  }
}

/** Why a record stands in its cluster: the surest of its pairs there. */
export function standingIn({ clusters, clusterOf, by }: Omit<Matched, 'pairs'>, one: number): Decision | undefined {
  let best: Decision | undefined;
  for (const m of clusters[clusterOf[one]!]!) {
    if (m === one) continue;
    const d = by(m, one);
    if (!best || d.probability > best.probability) best = d;
  }
  return best;
}

/** How sure it is of some pairs of records, by their places. */
export function weigh(records: Records, pairs: readonly (readonly [a: number, b: number])[]): Float64Array {
  const seen = seenOf(records);
  const scratch = new Float64Array(FEATURES.length);
  return Float64Array.from(pairs, ([a, b]) => decide(seen(a), seen(b), scratch).probability);
}
