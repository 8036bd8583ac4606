/**
 * A picture of a title in 512 bits, one for each three letters that stand together: titles that have little in common are told
 * by it at once, without being laid beside each other.
 */
import { ones } from '../narrowing/bits.ts';

/** Numbers of 32 bits in a picture. */
export const GRAM_INTS = 16;
const SHORTEST = 12;

/**
 * Draws the picture of a title into numbers that are 0, from a place on.
 * @returns how many bits are set; 0 where the title is too short to tell
 */
export function gramsInto(bits: Int32Array, at: number, letters: string): number {
  for (let i = 2; i < letters.length; i += 1) {
    let h = Math.imul(letters.charCodeAt(i - 2), 0x9e3779b1) ^ Math.imul(letters.charCodeAt(i - 1), 0x85ebca6b) ^ Math.imul(letters.charCodeAt(i), 0xc2b2ae35); // prettier-ignore
    h ^= h >>> 15;
    h = Math.imul(h, 0x2c1b3c6d);
    h ^= h >>> 12;
    bits[at + ((h >>> 5) & (GRAM_INTS - 1))]! |= 1 << (h & 31);
  }
  let count = 0;
  for (let i = 0; i < GRAM_INTS; i += 1) count += ones(bits[at + i]!);
  return letters.length < SHORTEST ? 0 : count;
}

/** The share of the shorter title's bits that the other has as well: 1 where one of them is too short to tell. */
export function gramsShared(bits: Int32Array, a: number, countA: number, b: number, countB: number): number {
  if (!countA || !countB) return 1;
  let n = 0;
  for (let i = 0; i < GRAM_INTS; i += 1) n += ones(bits[a + i]! & bits[b + i]!);
  return n / Math.min(countA, countB);
}
