/** Matching sources in the order asked for. */
import type { Bits } from './bits.ts';
import { rankByFacets } from './by-facets.ts';
import type { Columns } from './columns.ts';
import { lowerBound, UNRANKED, type Ranking } from './ranking.ts';

export interface SortBy {
  /** `year`, `added`, `changed`, `came` (the order in which they came), or a key whose ranking the columns were told. */
  key: string;
  descending: boolean;
  /** The facets of each rank, where sources are ranked by what they bear and not by the key. */
  facets?: number[][];
}

/** The order of a set: any stretch of it, and where a number stands. */
export interface Order {
  /** So many numbers from a place on: only what stands before their end is gone through. */
  stretch(from: number, count: number): Int32Array;
  /** How many stand before a number of the set: nothing is sorted for it. */
  placeOf(number: number): number;
}

interface Key {
  ranking: Ranking;
  descending: boolean;
}

/** A set that is so many times smaller than all is sorted; of others the order of all is walked. */
const SMALL = 16;

/**
 * What is equal in all keys stands in the order it came, turned round with the last key; sources without a year stand
 * last either way.
 * @throws RangeError when a key is unknown
 */
export function orderOf(columns: Columns, set: Bits, sort: SortBy[]): Order {
  const keys = sort.map(({ key, descending, facets }) => ({
    ranking: facets ? rankByFacets(columns, facets) : columns.rankingBy(key),
    descending,
  }));
  const [first, ...rest] = keys;
  return {
    stretch(from, count) {
      if (!first || set.count * SMALL < columns.size) return stretchOf(set.numbers(), keys, from, count);
      const line = walked(first, columns.size, set, from + count);
      return windowOf(line, first, rest, from, count);
    },
    placeOf: (number) => placeIn(set.numbers(), keys, number),
  };
}

/** A stretch of any numbers in the order of the keys. */
function stretchOf(numbers: Int32Array, keys: Key[], from: number, count: number): Int32Array {
  const [first, ...rest] = keys;
  if (!first || numbers.length < 2) return numbers.subarray(from, from + count);
  return windowOf(sorted(numbers, first), first, rest, from, count);
}

/** A stretch of numbers that stand in the order of the first key: those equal in it are sorted by the rest. */
function windowOf(line: Int32Array, { ranking }: Key, rest: Key[], from: number, count: number): Int32Array {
  const until = Math.min(line.length, from + count);
  if (!rest.length) return line.subarray(from, until);
  const out = new Int32Array(Math.max(0, until - from));
  for (let start = 0, end: number; start < until; start = end) {
    const rank = ranking.rankOf(line[start]!);
    for (end = start + 1; end < line.length && ranking.rankOf(line[end]!) === rank; end += 1);
    if (end <= from) continue;
    const low = Math.max(from, start);
    const part = stretchOf(line.subarray(start, end), rest, low - start, Math.min(until, end) - low);
    out.set(part, low - from);
  }
  return out;
}

/**
 * The members of a set in the order of a key, equal ones as `sorted` leaves them: so many, and those that are equal to
 * the last of them.
 */
function walked({ ranking, descending }: Key, size: number, set: Bits, wanted: number): Int32Array {
  const order = ranking.order(size);
  /** Where those without a rank begin. */
  const unranked = lowerBound(order.length, (i) => Number(ranking.rankOf(order[i]!) === UNRANKED), 1);
  const out = new Int32Array(Math.min(size, set.count));
  let found = 0;
  /** @returns false when there are enough */
  const visit = (n: number): boolean => {
    if (!set.has(n)) return true;
    if (found >= wanted && ranking.rankOf(n) !== ranking.rankOf(out[found - 1]!)) return false;
    out[found++] = n;
    return true;
  };
  const through = (low: number, high: number): boolean => {
    if (descending) {
      for (let i = high - 1; i >= low; i -= 1) if (!visit(order[i]!)) return false;
    } else for (let i = low; i < high; i += 1) if (!visit(order[i]!)) return false;
    return true;
  };
  if (through(0, unranked)) through(unranked, order.length);
  return out.subarray(0, found);
}

/** Numbers in the order of a key; rank and number are the digits of one number, which sorts many times faster. */
function sorted(numbers: Int32Array, { ranking, descending }: Key): Int32Array {
  const base = numbers.reduce((top, n) => Math.max(top, n), 0) + 1;
  const packed = new Float64Array(numbers.length);
  for (let i = 0; i < packed.length; i += 1) {
    const n = numbers[i]!;
    packed[i] = standing(ranking, descending, n) * base + (descending ? base - 1 - n : n);
  }
  packed.sort();
  return Int32Array.from(packed, (p) => {
    const digit = p - Math.floor(p / base) * base;
    return descending ? base - 1 - digit : digit;
  });
}

/** What numbers are compared by: rising in the order asked for, highest for what has no rank. */
function standing(ranking: Ranking, descending: boolean, n: number): number {
  const rank = ranking.rankOf(n);
  if (rank === UNRANKED) return ranking.span;
  return descending ? ranking.span - 1 - rank : rank;
}

function placeIn(numbers: Int32Array, [first, ...rest]: Key[], number: number): number {
  if (!first) return numbers.filter((n) => n < number).length;
  const { ranking, descending } = first;
  const own = standing(ranking, descending, number);
  let before = 0;
  const equal: number[] = [];
  for (let i = 0; i < numbers.length; i += 1) {
    const other = standing(ranking, descending, numbers[i]!);
    if (other < own) before += 1;
    else if (other === own) equal.push(numbers[i]!);
  }
  if (rest.length) return before + placeIn(Int32Array.from(equal), rest, number);
  for (const n of equal) if (descending ? n > number : n < number) before += 1;
  return before;
}
