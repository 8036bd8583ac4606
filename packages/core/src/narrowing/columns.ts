/**
 * What narrowing and sorting need of every source of a workspace, in typed arrays. A source is a number, its place in
 * each of them; a number never written to, or forgotten, is of no presence. About 100 bytes a source with 15 facets.
 */
import { PRESENCES } from '../changes/presence.ts';
import { Bits } from './bits.ts';
import { Ranking, type Placing } from './ranking.ts';
export { PRESENCES };
/** The year of a source without one. */
export const NO_YEAR = -2_147_483_648;

/** Several sources, one entry an array. */
export interface ColumnRows {
  numbers: Int32Array;
  /** Sixteen bytes each. */
  ids: Uint8Array;
  /** Index into PRESENCES. */
  presences: Uint8Array;
  years: Int32Array;
  /** Milliseconds since 1970. */
  added: Float64Array;
  changed: Float64Array;
  /** The facets of the i-th source are `facets[starts[i]]` up to `facets[starts[i + 1]]`. */
  starts: Int32Array;
  facets: Int32Array;
}

/** What is sorted by as it stands in the columns. */
const VALUES = { year: 'years', added: 'added', changed: 'changed' } as const;
type Valued = keyof typeof VALUES;
/** Of so many times more sources, those that changed are placed among them; more are ranked anew. */
const FEW = 16;

/** So many more than are wanted are gathered before the best are picked. */
const LEAST_TO_ORDER = 256;

/** The most frequent first; equal ones by their ids, not by when they were met: every server gives the same. */
const mostFrequent = (counts: [id: number, count: number][], most: number): [number, number][] =>
  counts.sort((a, b) => b[1] - a[1] || a[0] - b[0]).slice(0, most);

export class Columns {
  /** One past the highest number in use. */
  size = 0;
  private ids = new Uint8Array(0);
  private presences = new Uint8Array(0);
  private years = new Int32Array(0);
  private added = new Float64Array(0);
  private changed = new Float64Array(0);
  /** Facets of all sources one after another, as places in the dictionary; a rewritten source's old run is waste. */
  private pool = new Int32Array(0);
  private used = 0;
  private waste = 0;
  private starts = new Int32Array(0);
  private lengths = new Int32Array(0);
  private readonly places = new Map<number, number>();
  private readonly facetIds: number[] = [];
  private readonly facetTypes: string[] = [];
  /** Rankings by what only others know the order of, such as titles. */
  private readonly told = new Map<string, Ranking>();
  /** Rankings by the columns' own values, and the numbers whose value changed since. */
  private readonly valued = new Map<Valued, { ranking: Ranking; moved: Set<number> }>();
  private readonly within = new Map<number, Bits>();

  /** Tells of which type facets are. */
  learn(facets: Iterable<readonly [id: number, type: string]>): void {
    for (const [id, type] of facets) this.facetTypes[this.placeOf(id)] = type;
  }

  /** The place of a facet in the dictionary; one not met before is of no type yet. */
  private placeOf(id: number): number {
    let place = this.places.get(id);
    if (place === undefined) {
      place = this.facetIds.length;
      this.places.set(id, place);
      this.facetIds.push(id);
      this.facetTypes.push('');
    }
    return place;
  }

  /**
   * Sets what is known of these sources, new ones and known ones alike.
   * @returns the facets met for the first time, whose types must be learnt
   */
  write(rows: ColumnRows): number[] {
    const known = this.facetIds.length;
    const { numbers } = rows;
    const before = this.size;
    let top = before;
    for (const n of numbers) if (n >= top) top = n + 1;
    this.grow(top);
    this.growPool(this.used + rows.facets.length);
    this.within.clear();
    for (let i = 0; i < numbers.length; i += 1) {
      const n = numbers[i]!;
      for (const [key, { moved }] of this.valued)
        if (n >= before || this[VALUES[key]][n] !== rows[VALUES[key]][i]) moved.add(n);
      this.ids.set(rows.ids.subarray(i * 16, i * 16 + 16), n * 16);
      this.presences[n] = rows.presences[i]!;
      this.years[n] = rows.years[i]!;
      this.added[n] = rows.added[i]!;
      this.changed[n] = rows.changed[i]!;
      this.waste += this.lengths[n]!;
      this.starts[n] = this.used;
      for (let k = rows.starts[i]!; k < rows.starts[i + 1]!; k += 1)
        this.pool[this.used++] = this.placeOf(rows.facets[k]!);
      this.lengths[n] = this.used - this.starts[n]!;
    }
    if (this.waste > 10_000 && this.waste > this.used / 2) this.tidy();
    return this.facetIds.slice(known);
  }

  forget(numbers: Iterable<number>): void {
    this.within.clear();
    for (const n of numbers) if (n < this.size) this.presences[n] = 0;
  }

  /** Sets the ranking by a key that only others know the order of. */
  rank(key: string, ranking: Ranking): void {
    this.told.set(key, ranking);
  }

  /**
   * Places numbers anew by such a key.
   * @throws RangeError when no ranking was set for the key
   */
  place(key: string, placings: Placing[], gone: Iterable<number>): void {
    this.toldBy(key).place(placings, gone);
  }

  /**
   * The ranking by a key, which knows of all that was written.
   * @throws RangeError when none was set for the key
   */
  rankingBy(key: string): Ranking {
    if (key === 'came')
      return new Ranking(
        Int32Array.from({ length: this.size }, (_, n) => n),
        this.size,
      );
    if (!(key in VALUES)) return this.toldBy(key);
    const by = key as Valued;
    const value = (n: number): number | undefined => {
      const v = this[VALUES[by]][n]!;
      return v === NO_YEAR ? undefined : v;
    };
    const known = this.valued.get(by);
    if (known && known.moved.size * FEW <= this.size) {
      if (known.moved.size) known.ranking.placeBy(known.moved, this.size, value);
      known.moved.clear();
      return known.ranking;
    }
    const ranking = Ranking.by(this.size, value);
    this.valued.set(by, { ranking, moved: new Set() });
    return ranking;
  }

  private toldBy(key: string): Ranking {
    const found = this.told.get(key);
    if (!found) throw new RangeError(`nothing was ranked by “${key}”`);
    return found;
  }

  /** All sources of a presence. */
  ofPresence(presence: number): Bits {
    let found = this.within.get(presence);
    if (!found) {
      found = Bits.where(this.size, (n) => this.presences[n] === presence);
      this.within.set(presence, found);
    }
    return found;
  }

  yearOf(n: number): number {
    return this.years[n]!;
  }

  /** When it was added, or changed last. */
  timeOf(n: number, of: 'added' | 'changed'): number {
    return this[of][n]!;
  }

  /** The id of a source as sixteen bytes. */
  idOf(n: number): Uint8Array {
    return this.ids.subarray(n * 16, n * 16 + 16);
  }

  /** The number of the source with this id of sixteen bytes, or -1: all of them are looked through. */
  numberOf(id: Uint8Array): number {
    for (let n = 0, from = 0; n < this.size; n += 1, from += 16) {
      // The last bytes of an id differ most.
      let k = 15;
      while (k >= 0 && this.ids[from + k] === id[k]) k -= 1;
      if (k < 0) return n;
    }
    return -1;
  }

  /** A test for bearing at least one of the facets. */
  bears(facetIds: Iterable<number>): (n: number) => boolean {
    const wanted = new Uint8Array(this.facetIds.length);
    for (const id of facetIds) {
      const place = this.places.get(id);
      if (place !== undefined) wanted[place] = 1;
    }
    return (n) => {
      const end = this.starts[n]! + this.lengths[n]!;
      for (let i = this.starts[n]!; i < end; i += 1) if (wanted[this.pool[i]!]) return true;
      return false;
    };
  }

  /** How to tell which of these facets a source bears, each by its place among them. */
  placing(facetIds: number[]): (n: number, tell: (place: number) => void) => void {
    const at = new Int32Array(this.facetIds.length).fill(-1);
    facetIds.forEach((id, i) => {
      const place = this.places.get(id);
      if (place !== undefined) at[place] = i;
    });
    return (n, tell) => {
      const end = this.starts[n]! + this.lengths[n]!;
      for (let i = this.starts[n]!; i < end; i += 1) {
        const place = at[this.pool[i]!]!;
        if (place >= 0) tell(place);
      }
    };
  }

  /** How many of the visited sources bear each facet: [id, count] of the `most` frequent of each type asked for. */
  countFacets(
    visit: (each: (n: number) => void) => void,
    most: Record<string, number>,
  ): Map<string, [number, number][]> {
    return new Map([...this.frequent(visit, most)].map(([type, { best }]) => [type, best]));
  }

  /** The same, with how many values of each type are borne in all. */
  frequent(
    visit: (each: (n: number) => void) => void,
    most: Record<string, number>,
  ): Map<string, { best: [number, number][]; inAll: number }> {
    const counts = new Int32Array(this.facetIds.length);
    const { pool, starts, lengths } = this;
    visit((n) => {
      const end = starts[n]! + lengths[n]!;
      for (let i = starts[n]!; i < end; i += 1) counts[pool[i]!]! += 1;
    });
    const out = new Map(Object.keys(most).map((type) => [type, { best: [] as [number, number][], inAll: 0 }]));
    counts.forEach((count, place) => {
      const of = count ? out.get(this.facetTypes[place]!) : undefined;
      if (!of) return;
      of.inAll += 1;
      of.best.push([this.facetIds[place]!, count]);
      // Sorted only when the list has grown well past its limit: inserting each value in its place would cost the square
      // of the number of values.
      if (of.best.length > 2 * most[this.facetTypes[place]!]! + LEAST_TO_ORDER)
        of.best = mostFrequent(of.best, most[this.facetTypes[place]!]!);
    });
    for (const [type, of] of out) of.best = mostFrequent(of.best, most[type]!);
    return out;
  }

  private grow(size: number): void {
    if (size <= this.size) return;
    if (size > this.presences.length) {
      const room = Math.max(size, Math.ceil(this.presences.length * 1.25));
      this.ids = grown(this.ids, room * 16);
      this.presences = grown(this.presences, room);
      this.years = grown(this.years, room);
      this.added = grown(this.added, room);
      this.changed = grown(this.changed, room);
      this.starts = grown(this.starts, room);
      this.lengths = grown(this.lengths, room);
    }
    this.size = size;
  }

  private growPool(length: number): void {
    if (length > this.pool.length) this.pool = grown(this.pool, Math.max(length, Math.ceil(this.pool.length * 1.25)));
  }

  /** Writes the pool anew without waste. */
  private tidy(): void {
    const pool = new Int32Array(this.used - this.waste);
    let used = 0;
    for (let n = 0; n < this.size; n += 1) {
      const run = this.pool.subarray(this.starts[n]!, this.starts[n]! + this.lengths[n]!);
      pool.set(run, used);
      this.starts[n] = used;
      used += run.length;
    }
    this.pool = pool;
    this.used = used;
    this.waste = 0;
  }
}

function grown<A extends Uint8Array | Int32Array | Float64Array>(old: A, length: number): A {
  const made = new (old.constructor as new (n: number) => A)(length);
  made.set(old as never);
  return made;
}
