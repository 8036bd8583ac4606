/**
 * Which of very many records meet: what is kept of each is small, so that a million need not be held at once. Those that share
 * a key meet, unless so little of their titles is alike that nothing could come of it.
 */
import { blockKeys, on, SEED } from './blocks.ts';
import { GRAM_INTS, gramsInto, gramsShared } from './grams.ts';
import type { Seen } from './seen.ts';
import { formatNumber } from '../wording/index.ts';

/** A block with more records in it says too little; of the larger ones, neighbours in order of title are compared. */
export const LARGEST_BLOCK = 60;
const NEIGHBOURS = 12;
/** Titles with less in common are those of one work only where an identifier or their place in a journal says so. */
const LEAST_SHARED = 0.55;
/** A record, or two, in one number: 21 bits each. */
export const MOST_RECORDS = 2 ** 21;

/** Numbers that are written one after another, however many they become. */
class Numbers<T extends Float64Array | Int32Array> {
  n = 0;
  constructor(public list: T) {}
  /** Room for so many more. */
  room(more: number): void {
    if (this.n + more <= this.list.length) return;
    const Kind = this.list.constructor as new (n: number) => T;
    const larger = new Kind(Math.max(this.list.length * 2, this.n + more));
    larger.set(this.list);
    this.list = larger;
  }
  push(value: number): void {
    this.room(1);
    this.list[this.n++] = value;
  }
}

export class Meeting {
  private size = 0;
  /** 32 bits of a key's hash, 21 of the record. */
  private readonly entries = new Numbers(new Float64Array(1 << 12));
  /** Those of identifiers: who shares one is looked at, whatever the titles. */
  private readonly strong = new Numbers(new Float64Array(1 << 10));
  private readonly grams = new Numbers(new Int32Array(1 << 12));
  private readonly gramCounts = new Numbers(new Int32Array(1 << 10));
  /** Volume, first page and year in one; 0 where one is not known. */
  private readonly places = new Numbers(new Int32Array(1 << 10));
  private readonly letters: string[] = [];

  /** The next record: they are numbered as they come. */
  add(seen: Seen): void {
    const i = this.size++;
    if (i >= MOST_RECORDS) throw new RangeError(`More than ${formatNumber(MOST_RECORDS)} records at one go`);
    const { identifiers, others } = blockKeys(seen);
    for (const key of identifiers) this.strong.push(key * MOST_RECORDS + i);
    for (const key of others) this.entries.push(key * MOST_RECORDS + i);
    this.grams.room(GRAM_INTS);
    this.gramCounts.push(gramsInto(this.grams.list, this.grams.n, seen.letters));
    this.grams.n += GRAM_INTS;
    this.places.push(placeOf(seen));
    this.letters.push(seen.letters);
  }

  /** Pairs that meet, each once and in order: the lower record times `MOST_RECORDS`, and the other. */
  pairs(): Float64Array {
    const pairs = new Numbers(new Float64Array(1 << 12));
    const meet = (x: number, y: number): void => pairs.push(Math.min(x, y) * MOST_RECORDS + Math.max(x, y));
    this.eachMeeting(this.strong, meet);
    this.eachMeeting(this.entries, (x, y) => this.isHopeless(x, y) || meet(x, y));
    const all = pairs.list.subarray(0, pairs.n).sort();
    let n = 0;
    for (const pair of all) if (n === 0 || pair !== all[n - 1]) all[n++] = pair;
    return all.subarray(0, n);
  }

  private isHopeless(a: number, b: number): boolean {
    const counts = this.gramCounts.list;
    const shared = gramsShared(this.grams.list, a * GRAM_INTS, counts[a]!, b * GRAM_INTS, counts[b]!);
    if (shared >= LEAST_SHARED) return false;
    const place = this.places.list[a]!;
    return place === 0 || place !== this.places.list[b];
  }

  private eachMeeting({ list, n }: Numbers<Float64Array>, meet: (x: number, y: number) => unknown): void {
    const sorted = list.subarray(0, n).sort();
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
      if (large) block.sort((x, y) => (this.letters[x]! < this.letters[y]! ? -1 : 1));
      for (let i = 0; i < block.length; i += 1) {
        const end = large ? Math.min(block.length, i + NEIGHBOURS) : block.length;
        for (let j = i + 1; j < end; j += 1) meet(block[i]!, block[j]!);
      }
      from = to;
    }
  }
}

/** Volume, first page and year as one number: a translated title, or one that was mistaken, stands in the same place. */
function placeOf({ volume, first, year }: Seen): number {
  if (volume === undefined || first === undefined || year === undefined) return 0;
  return on(on(on(SEED, volume), first), String(year)) || 1;
}
