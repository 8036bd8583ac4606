import { bounded, MOST_IN, type SourceRecord } from '../source/index.ts';
import { cut } from '../text/index.ts';

/** What a reader has to say about one place in its input. One report serves the terminal, the page and a test. */
export interface Message {
  severity: 'info' | 'warning' | 'error';
  /** Which rule speaks: a stable short name. */
  rule: string;
  /** Counted from 1; 0 where the place is the file as a whole. */
  line: number;
  column: number;
  /** What was met. */
  what: string;
  /** What was done about it. */
  done: string;
}

/** One entry, as it is written. */
export interface Entry {
  record: SourceRecord;
  /** Keywords that came with the record; they become subject terms, never a person's tags. */
  subjects: string[];
}

export type Writable = Iterable<Entry>;

/** One entry as a reader found it. */
export interface ReadSource extends Entry {
  /** The line its entry begins on, from 1. */
  line: number;
}

export interface ReadResult {
  sources: ReadSource[];
  messages: Message[];
}

/** Turns offsets of a text into lines and columns, both from 1. */
export class Lines {
  private readonly starts: number[] = [0];

  constructor(text: string) {
    for (let i = text.indexOf('\n'); i >= 0; i = text.indexOf('\n', i + 1)) this.starts.push(i + 1);
  }

  at(offset: number): { line: number; column: number } {
    let lo = 0;
    let hi = this.starts.length - 1;
    while (lo < hi) {
      const mid = (lo + hi + 1) >> 1;
      if (this.starts[mid]! <= offset) lo = mid;
      else hi = mid - 1;
    }
    return { line: lo + 1, column: offset - this.starts[lo]! + 1 };
  }
}

/** What a reader gives one after another. */
export type Item = { source: ReadSource; message?: never } | { message: Message; source?: never };

/** The rule of an entry its reader stumbled over: a fault of the reader, of which no test may see one. */
export const STUMBLED = 'unreadable-entry';

/** Reads one entry, on the line it begins on. Whatever is in it that its reader stumbles over, it costs no other. */
export function tryEntry<T>(
  line: number,
  read: () => T,
): { given: T; message?: never } | { message: Message; given?: never } {
  try {
    return { given: read() };
  } catch {
    const what = 'An entry holds what could not be understood';
    const done = 'left out; the others were read';
    return { message: { severity: 'error', rule: STUMBLED, line, column: 1, what, done } };
  }
}

/** The same of an entry that is a source in any case. */
export function itemOf(line: number, read: () => ReadSource): Item {
  const { given, message } = tryEntry(line, read);
  return message ? { message } : { source: given };
}

/** What a reader gives, with no field longer than any source has: of a longer one the beginning is kept, and it is said. */
export function* eachBounded(items: Iterable<Item>): Generator<Item> {
  for (const item of items) {
    if (!item.source) {
      yield item;
      continue;
    }
    const { source } = item;
    const { record, cut: cuts } = bounded(source.record);
    const subjects = source.subjects.slice(0, MOST_IN.subjects).map((s) => cut(s, MOST_IN.subject));
    if (subjects.some((s, i) => s !== source.subjects[i]) || subjects.length < source.subjects.length)
      cuts.push('Subject terms: more, or longer, than are kept');
    yield cuts.length ? { source: { ...source, record, subjects } } : item;
    for (const what of cuts)
      yield {
        message: {
          severity: 'warning',
          rule: 'too-long',
          line: source.line,
          column: 1,
          what,
          done: 'the beginning was kept',
        },
      };
  }
}

/** All a reader gives, its messages in the order of their places. */
export function collect(items: Iterable<Item>): ReadResult {
  const sources: ReadSource[] = [];
  const messages: Message[] = [];
  for (const { source, message } of items) {
    if (source) sources.push(source);
    else messages.push(message);
  }
  messages.sort((a, b) => a.line - b.line || a.column - b.column);
  return { sources, messages };
}

export const EMPTY: Message = {
  severity: 'info',
  rule: 'empty',
  line: 1,
  column: 1,
  what: 'The file holds no entries',
  done: 'nothing to read',
};
