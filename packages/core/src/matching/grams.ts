/**
 * A picture of a title in 512 bits, one for each three letters that stand together: titles that have little in common are told
 * by it at once, without being laid beside each other.
 */
import { ones } from '../narrowing/bits.ts';

const INTS = 16;
const SHORTEST = 12;

export interface Grams {
  bits: Int32Array;
  count: number;
}

export function gramsOf(letters: string): Grams {
  const bits = new Int32Array(INTS);
  for (let i = 2; i < letters.length; i += 1) {
    let h = Math.imul(letters.charCodeAt(i - 2), 0x9e3779b1) ^ Math.imul(letters.charCodeAt(i - 1), 0x85ebca6b) ^ Math.imul(letters.charCodeAt(i), 0xc2b2ae35); // prettier-ignore
    h ^= h >>> 15;
    h = Math.imul(h, 0x2c1b3c6d);
    h ^= h >>> 12;
    bits[(h >>> 5) & (INTS - 1)]! |= 1 << (h & 31);
  }
  let count = 0;
  for (let i = 0; i < INTS; i += 1) count += ones(bits[i]!);
  return { bits, count: letters.length < SHORTEST ? 0 : count };
}

/** The share of the shorter title's bits that the other has as well: 1 where one of them is too short to tell. */
export function gramsShared(a: Grams, b: Grams): number {
  if (!a.count || !b.count) return 1;
  let n = 0;
  for (let i = 0; i < INTS; i += 1) n += ones(a.bits[i]! & b.bits[i]!);
  return n / Math.min(a.count, b.count);
}
