/** A set of small whole numbers, one bit each. Operations give new sets and leave their operands as they were. */
export class Bits {
  private constructor(
    /** Members lie below this. */
    readonly size: number,
    private readonly words: Uint32Array,
  ) {}

  static none(size: number): Bits {
    return new Bits(size, new Uint32Array((size + 31) >>> 5));
  }

  /** Numbers at or above `size`, or below zero, are left out. */
  static of(size: number, numbers: Iterable<number>): Bits {
    const out = Bits.none(size);
    for (const n of numbers) if (n >= 0 && n < size) out.words[n >>> 5]! |= 1 << (n & 31);
    return out;
  }

  /** Those members for which the test holds. */
  filter(test: (n: number) => boolean): Bits {
    const out = Bits.none(this.size);
    this.forEach((n) => {
      if (test(n)) out.words[n >>> 5]! |= 1 << (n & 31);
    });
    return out;
  }

  /** All numbers below `size` for which the test holds. */
  static where(size: number, test: (n: number) => boolean): Bits {
    const out = Bits.none(size);
    for (let n = 0; n < size; n += 1) if (test(n)) out.words[n >>> 5]! |= 1 << (n & 31);
    return out;
  }

  /** The same but for some numbers, of which these are members now and the others are not. */
  amended(size: number, numbers: Iterable<number>, members: Iterable<number>): Bits {
    const out = Bits.none(Math.max(size, this.size));
    out.words.set(this.words);
    for (const n of numbers) out.words[n >>> 5]! &= ~(1 << (n & 31));
    for (const n of members) out.words[n >>> 5]! |= 1 << (n & 31);
    return out;
  }

  and(other: Bits): Bits {
    return this.each((a, i) => a & (other.words[i] ?? 0));
  }

  or(other: Bits): Bits {
    return this.each((a, i) => a | (other.words[i] ?? 0));
  }

  without(other: Bits): Bits {
    return this.each((a, i) => a & ~(other.words[i] ?? 0));
  }

  has(n: number): boolean {
    return ((this.words[n >>> 5] ?? 0) & (1 << (n & 31))) !== 0;
  }

  get count(): number {
    let total = 0;
    for (const word of this.words) total += ones(word);
    return total;
  }

  forEach(visit: (n: number) => void): void {
    for (let i = 0; i < this.words.length; i += 1) {
      let word = this.words[i]!;
      while (word) {
        const low = word & -word;
        visit((i << 5) + 31 - Math.clz32(low));
        word ^= low;
      }
    }
  }

  /** The members in rising order, at most `most`. */
  numbers(most = Infinity): Int32Array {
    const out = new Int32Array(Math.min(this.count, most));
    let at = 0;
    this.forEach((n) => {
      if (at < out.length) out[at++] = n;
    });
    return out;
  }

  private each(make: (word: number, i: number) => number): Bits {
    const out = new Uint32Array(this.words.length);
    for (let i = 0; i < out.length; i += 1) out[i] = make(this.words[i]!, i);
    return new Bits(this.size, out);
  }
}
/** How many bits of a word of 32 are set: added in pairs, fours and bytes (common practice). */
export function ones(word: number): number {
  let w = word - ((word >>> 1) & 0x55555555);
  w = (w & 0x33333333) + ((w >>> 2) & 0x33333333);
  return (((w + (w >>> 4)) & 0x0f0f0f0f) * 0x01010101) >>> 24;
}
