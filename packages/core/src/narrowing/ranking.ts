/**
 * How sources stand by one key: equal ranks for equal values, and all numbers in that order. A source whose value
 * changed is placed anew among the others, so that nothing is ranked or sorted again for it.
 */

/** The rank of a number that has no value: it stands after all others. */
export const UNRANKED = -1;

/** Where a number stands among those that are not placed with it. */
export interface Placing {
  number: number;
  /** A number with the next lower value, or -1 when none is lower. */
  after: number;
  /** A number with the same value, or -1. */
  same: number;
  /** Whether its value is that of the placing before it. */
  tied: boolean;
}

export class Ranking {
  private sorted: Int32Array | undefined;

  /**
   * @param ranks by number, UNRANKED or from 0 upwards
   * @param groups one past the highest rank
   */
  constructor(
    private ranks: Int32Array,
    private groups: number,
  ) {}

  /** Ranks by values, which are undefined for a number that has none. */
  static by(size: number, value: (n: number) => number | undefined): Ranking {
    const values = Float64Array.from({ length: size }, (_, n) => value(n) ?? NaN);
    const levels = values.filter((v) => !Number.isNaN(v)).sort();
    let groups = 0;
    for (let i = 0; i < levels.length; i += 1) if (!i || levels[i] !== levels[i - 1]) levels[groups++] = levels[i]!;
    const ranks = Int32Array.from(values, (v) =>
      Number.isNaN(v) ? UNRANKED : lowerBound(groups, (i) => levels[i]!, v),
    );
    return new Ranking(ranks, groups);
  }

  rankOf(n: number): number {
    return n < this.ranks.length ? this.ranks[n]! : UNRANKED;
  }

  /** One past the highest rank. */
  get span(): number {
    return this.groups;
  }

  /** All numbers below `size` in rising order of ranks, then of numbers; those without a rank at the end. */
  order(size: number): Int32Array {
    if (this.sorted?.length !== size) this.sorted = this.sort(size);
    return this.sorted;
  }

  /** Counting sort: once over the ranks, once over the numbers. */
  private sort(size: number): Int32Array {
    this.reach(size);
    const starts = new Int32Array(this.groups + 2);
    const { ranks, groups } = this;
    const bin = (n: number): number => (ranks[n] === UNRANKED ? groups : ranks[n]!);
    for (let n = 0; n < size; n += 1) starts[bin(n) + 1]! += 1;
    for (let g = 1; g < starts.length; g += 1) starts[g]! += starts[g - 1]!;
    const out = new Int32Array(size);
    for (let n = 0; n < size; n += 1) out[starts[bin(n)]!++] = n;
    return out;
  }

  /**
   * Places numbers anew.
   * @param placings in rising order of their values, and told by numbers that are not among them
   * @param gone numbers that have no value any more
   */
  place(placings: Placing[], gone: Iterable<number> = []): void {
    this.sorted = undefined;
    this.reach(placings.reduce((top, p) => Math.max(top, p.number + 1), 0));
    for (const n of gone) if (n < this.ranks.length) this.ranks[n] = UNRANKED;
    // Taken out first: they are not to be moved along with those that make room.
    for (const { number } of placings) this.ranks[number] = UNRANKED;
    const fresh = placings.filter((p) => p.same < 0 && !p.tied);
    this.makeRoom(fresh.map((p) => this.behind(p.after)));
    let last = -1;
    for (const { number, after, same, tied } of placings) {
      if (same >= 0) last = this.ranks[same]!;
      // Those placed before it at the same point stand between it and what it follows.
      else if (!tied) last = Math.max(last + 1, this.behind(after));
      this.ranks[number] = last;
    }
  }

  /** Places numbers anew by their values, which those of all others must still be ranked by. */
  placeBy(moved: Set<number>, size: number, value: (n: number) => number | undefined): void {
    const others = this.order(size).filter((n) => this.rankOf(n) !== UNRANKED && !moved.has(n));
    const valued = [...moved].flatMap((number) => {
      const v = value(number);
      return v === undefined ? [] : [{ number, v }];
    });
    valued.sort((a, b) => a.v - b.v);
    const placings = valued.map(({ number, v }, i) => {
      const at = lowerBound(others.length, (k) => value(others[k]!)!, v);
      const same = at < others.length && value(others[at]!) === v ? others[at]! : -1;
      return { number, after: at ? others[at - 1]! : -1, same, tied: i > 0 && valued[i - 1]!.v === v };
    });
    this.place(placings, moved);
  }

  private behind(after: number): number {
    return after < 0 ? 0 : this.ranks[after]! + 1;
  }

  /** Moves ranks up so that one becomes free before each of these, which rise. */
  private makeRoom(before: number[]): void {
    if (!before.length) return;
    const moved = new Int32Array(this.groups);
    for (let rank = 0, i = 0; rank < this.groups; rank += 1) {
      while (i < before.length && before[i]! <= rank) i += 1;
      moved[rank] = rank + i;
    }
    for (let n = 0; n < this.ranks.length; n += 1) if (this.ranks[n]! >= 0) this.ranks[n] = moved[this.ranks[n]!]!;
    this.groups += before.length;
  }

  private reach(size: number): void {
    if (size <= this.ranks.length) return;
    const ranks = new Int32Array(Math.max(size, Math.ceil(this.ranks.length * 1.25))).fill(UNRANKED);
    ranks.set(this.ranks);
    this.ranks = ranks;
  }
}

/** The place of the first of `length` rising values that is not below this one. */
export function lowerBound(length: number, at: (place: number) => number, value: number): number {
  let low = 0;
  let high = length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (at(middle) < value) low = middle + 1;
    else high = middle;
  }
  return low;
}
