/** The same work from several catalogues is one line: which records are folded together, by the evidence of each pair. */
import { withoutMarkup, yearOf, type SourceRecord } from '../source/index.ts';
import { areOneWork, compareSeen } from './evidence.ts';
import { identifierKeys, mainOf, titleKey } from './keys.ts';
import { see, type Seen } from './seen.ts';

/**
 * So many works are looked at that share keys with a record, those that share the most first, the latest of those that share
 * as many; and so many records of each. Of very many alike titles the work does not grow with all that came before.
 */
const MOST_WORKS = 12;
const MOST_RECORDS = 4;
/** Of the works that share a key only the latest are counted. */
const MOST_SHARING = 60;

/** Records that come, one after another, each told the work it is of. */
export class Folding {
  private readonly works: Seen[][] = [];
  private readonly byKey = new Map<string, Set<number>>();

  /** @returns the number of the work; a new one where it is none of those before */
  add(record: SourceRecord): number {
    const keys = keysOf(record);
    const seen = see(record);
    const found = this.candidates(keys).find((w) =>
      this.works[w]!.slice(0, MOST_RECORDS).every((other) => areOneWork(compareSeen(seen, other).verdict)),
    );
    const work = found ?? this.works.length;
    this.note(seen, work, keys);
    return work;
  }

  private candidates(keys: string[]): number[] {
    const shared = new Map<number, number>();
    for (const key of keys)
      for (const work of [...(this.byKey.get(key) ?? [])].slice(-MOST_SHARING))
        shared.set(work, (shared.get(work) ?? 0) + 1);
    return [...shared]
      .sort((a, b) => b[1] - a[1] || b[0] - a[0])
      .slice(0, MOST_WORKS)
      .map(([work]) => work);
  }

  /** A record whose work is known already. */
  put(record: SourceRecord, work: number): void {
    this.note(see(record), work, keysOf(record));
  }

  private note(seen: Seen, work: number, keys: string[]): void {
    (this.works[work] ??= []).push(seen);
    for (const key of keys) {
      const those = this.byKey.get(key);
      if (those) those.add(work);
      else this.byKey.set(key, new Set([work]));
      // What lies too far back is not counted any more.
      if (those && those.size > 2 * MOST_SHARING) this.byKey.set(key, new Set([...those].slice(-MOST_SHARING)));
    }
  }
}

/** Where records that may be one work meet: identifiers, the main title, the title's first words with the year about. */
function keysOf(record: SourceRecord): string[] {
  const title = titleKey(unescaped(withoutMarkup(record.title ?? '')));
  const main = titleKey(unescaped(mainOf(record.title ?? '')));
  const year = yearOf(record.issued);
  return [
    ...identifierKeys(record),
    ...(title ? [`t:${title}`] : []),
    ...(main.length > 11 ? [`m:${main}`] : []),
    ...(year !== undefined && title.length > 24 ? [`y:${title.slice(0, 24)}:${year}`] : []),
  ];
}

const unescaped = (text: string): string =>
  text
    .replace(/&amp;/g, '&')
    .replace(/&#(\d+);/g, (_, n: string) => String.fromCodePoint(Math.min(0x10ffff, Number(n))));

/**
 * The records of one work as one: the fullest leads, its title and people are those that are best written, and what it
 * lacks comes from the others.
 */
export function bestOf(records: readonly SourceRecord[]): SourceRecord {
  const [lead, ...others] = records.toSorted((a, b) => Object.keys(b).length - Object.keys(a).length);
  const out = { ...lead! } as Record<string, unknown>;
  for (const other of others)
    for (const [field, value] of Object.entries(other))
      if (out[field] === undefined && field !== 'custom') out[field] = value;
  const record = out as SourceRecord;
  const title = most(records, (r) => (r.title ? wellWritten(r.title) : -1))?.title;
  const author = most(records, (r) => (r.author ? spelt(r) : -1))?.author;
  return { ...record, ...(title && { title }), ...(author && { author }) };
}

/** The first of those that have the most of it; none where none has any. */
function most(records: readonly SourceRecord[], of: (r: SourceRecord) => number): SourceRecord | undefined {
  const best = Math.max(...records.map(of));
  return best < 0 ? undefined : records.find((r) => of(r) === best);
}

/** A title in capitals alone, or with entities of markup in it, is worse than one without its subtitle. */
const wellWritten = (title: string): number =>
  (title !== title.toUpperCase() ? 4 : 0) + (/&(?:amp|#\d+);/.test(title) ? 0 : 2) + Math.min(1, title.length / 500);

/** How many people are named in full, of how many. */
const spelt = (r: SourceRecord): number =>
  r.author!.filter((n) => n.literal || (n.given && !/^(?:\p{L}\.[\s-]?)+$/u.test(n.given))).length +
  r.author!.length / 100;
