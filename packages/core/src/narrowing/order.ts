/** Matching sources in the order asked for. */
import type { Bits } from './bits.ts';
import { NO_YEAR, type Columns } from './columns.ts';

export interface SortBy {
  /** `year`, `added`, `changed`, or a key whose ranks the columns hold. */
  key: string;
  descending: boolean;
}

/** The order of a set: what stands first in it, and where a number stands. */
export interface Order {
  /** The numbers, sorted; with `most` only so many: the first few need no sorting of all. */
  first(most?: number): Int32Array;
  /** How many stand before a number of the set: nothing is sorted for it. */
  placeOf(number: number): number;
}

/**
 * What is equal in all keys stands in the order it came, turned round with the last key; sources without a year stand
 * last either way.
 * @throws RangeError when a key is unknown
 */
export function orderOf(columns: Columns, set: Bits, sort: SortBy[]): Order {
  const numbers = set.numbers();
  const backwards = sort.at(-1)?.descending ?? false;
  const keys = sort.map((s) => keyOf(columns, numbers, s));
  const packed = pack(columns, numbers, keys, backwards);
  if (!packed) {
    const sorted = sortByComparing(numbers, keys, backwards);
    return { first: (most = Infinity) => sorted.slice(0, most), placeOf: (number) => sorted.indexOf(number) };
  }
  const last = columns.size - 1;
  return {
    first(most = Infinity) {
      const sorted = most < packed.length / 8 ? lowest(packed, most) : packed.toSorted();
      const out = new Int32Array(Math.min(sorted.length, most));
      for (let i = 0; i < out.length; i += 1) {
        const n = sorted[i]! - Math.floor(sorted[i]! / columns.size) * columns.size;
        out[i] = backwards ? last - n : n;
      }
      return out;
    },
    placeOf(number) {
      const own = packed[numbers.indexOf(number)]!;
      let before = 0;
      for (let i = 0; i < packed.length; i += 1) if (packed[i]! < own) before += 1;
      return before;
    },
  };
}

/**
 * The keys and the number as digits of one number, which sorts many times faster; undefined where that is not exact.
 * Plain loops: these run over every source, and the iterating forms cost four times as much.
 */
function pack(columns: Columns, numbers: Int32Array, keys: Key[], backwards: boolean): Float64Array | undefined {
  let room = columns.size;
  for (const { span } of keys) room *= span;
  if (room > Number.MAX_SAFE_INTEGER) return undefined;
  const packed = new Float64Array(numbers.length);
  for (const { values, span } of keys)
    for (let i = 0; i < packed.length; i += 1) packed[i] = packed[i]! * span + values[i]!;
  const last = columns.size - 1;
  for (let i = 0; i < packed.length; i += 1)
    packed[i] = packed[i]! * columns.size + (backwards ? last - numbers[i]! : numbers[i]!);
  return packed;
}

/**
 * The lowest values, sorted. Nearly all values are only compared with the highest of those found so far; values that
 * fall, as the newest sources do, are gone through from their end.
 */
function lowest(values: Float64Array, most: number): Float64Array {
  const falling = values[0]! > values.at(-1)!;
  const found = (falling ? values.slice(-most) : values.slice(0, most)).sort();
  for (let i = most; i < values.length; i += 1) {
    const value = values[falling ? values.length - 1 - i : i]!;
    if (value >= found[most - 1]!) continue;
    let at = most - 1;
    for (; at > 0 && found[at - 1]! > value; at -= 1) found[at] = found[at - 1]!;
    found[at] = value;
  }
  return found;
}

function sortByComparing(numbers: Int32Array, keys: Key[], backwards: boolean): Int32Array {
  const places = Int32Array.from(numbers, (_, i) => i).sort((a, b) => {
    for (const { values } of keys) {
      const d = values[a]! - values[b]!;
      if (d) return d;
    }
    return backwards ? b - a : a - b;
  });
  return places.map((i) => numbers[i]!);
}

/** A key of each source as a whole number from 0 below `span`, rising in the order asked for. */
interface Key {
  values: Float64Array;
  span: number;
}

function keyOf(columns: Columns, numbers: Int32Array, { key, descending }: SortBy): Key {
  const read = readerOf(columns, key);
  const values = new Float64Array(numbers.length);
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < values.length; i += 1) {
    const v = (values[i] = read(numbers[i]!));
    if (key === 'year' && v === NO_YEAR) continue;
    if (v < low) low = v;
    if (v > high) high = v;
  }
  if (low > high) low = high = 0;
  const last = high - low + 1;
  for (let i = 0; i < values.length; i += 1) {
    const v = values[i]!;
    values[i] = key === 'year' && v === NO_YEAR ? last : descending ? high - v : v - low;
  }
  return { values, span: last + 1 };
}

function readerOf(columns: Columns, key: string): (n: number) => number {
  switch (key) {
    case 'year':
      return (n) => columns.yearOf(n);
    case 'added':
      return (n) => Math.floor(columns.addedAt(n));
    case 'changed':
      return (n) => Math.floor(columns.changedAt(n));
    default: {
      const ranks = columns.ranksOf(key);
      return (n) => ranks[n] ?? 0;
    }
  }
}
