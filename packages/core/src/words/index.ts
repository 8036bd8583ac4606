/**
 * Words as searching knows them. A text becomes tokens: folded (case and accents), and stemmed as English words are
 * (Porter, "An algorithm for suffix stripping", Program 14(3), 1980). The same code makes the index, reads the query
 * and finds what to light in a snippet, so the three always agree.
 */
import { fold, tokens } from './tokens.ts';

export * from './tokens.ts';
export * from './begun.ts';
export { isFunctionWord } from './function-words.ts';

/** PostgreSQL holds positions to 16383 (its documentation, "Text Search Types"); later words share the last one. */
const LAST_POSITION = 16383;
/** A lexeme may be no longer; what is longer is nothing one would type. In UTF-16 units. */
const LONGEST_LEXEME = 200;
/**
 * A tsvector holds less than 1 MB of lexemes and positions (PostgreSQL's documentation, "Text Search Types"). A position
 * takes two bytes, and a lexeme with any two more and one to align.
 */
const MOST_BYTES = 1_000_000;
const BYTES_A_POSITION = 2;
const BYTES_OF_POSITIONS = 3;

/** What has other spellings: words of letters, neither so short that they resemble any nor longer than a word is. */
const CAN_BE_MISSPELT = /^\p{L}{3,40}$/u;

/** The length of a text in UTF-8. */
function utf8Length(text: string): number {
  let bytes = 0;
  for (const c of text) {
    const code = c.codePointAt(0)!;
    bytes += code < 0x80 ? 1 : code < 0x800 ? 2 : code < 0x10000 ? 3 : 4;
  }
  return bytes;
}

/**
 * Collects words into the text form of a PostgreSQL tsvector. Every lexeme begins with a prefix that holds the
 * workspace (and, for words of one field, that field), so each workspace and field has posting lists of its own
 * within one index.
 */
export class Lexemes {
  private readonly found = new Map<string, string>();
  private position = 0;
  /** What the vector takes as PostgreSQL keeps it. */
  private bytes = 0;
  /** How many lexemes there was no room for. */
  leftOut = 0;

  /**
   * Adds the words of a text, with positions that go on from the last text added.
   * @param beside each takes the same words at the same positions under a prefix of its own
   */
  add(
    prefix: string,
    text: string,
    weight: '' | 'A' | 'B' | 'C' = '',
    ...beside: [words: Lexemes, prefix: string][]
  ): void {
    for (const token of tokens(text)) {
      this.position = Math.min(this.position + 1, LAST_POSITION);
      const at = `${this.position}${weight}`;
      this.put(prefix + token.stem, at);
      for (const [words, lead] of beside) words.put(lead + token.stem, at);
    }
    this.position = Math.min(this.position + 10, LAST_POSITION);
  }

  private put(lexeme: string, at: string): void {
    const before = this.found.get(lexeme);
    if (before === undefined) this.take(lexeme, at);
    else if (before.length < 1500 && this.bytes + BYTES_A_POSITION + BYTES_OF_POSITIONS <= MOST_BYTES) {
      this.bytes += BYTES_A_POSITION + (before ? 0 : BYTES_OF_POSITIONS);
      this.found.set(lexeme, before ? `${before},${at}` : at);
    }
  }

  /** Adds words without positions: they can be found but take no part in phrases. */
  addBare(prefix: string, stemmed: Iterable<string>): void {
    for (const s of stemmed) if (!this.found.has(prefix + s)) this.take(prefix + s, '');
  }

  /** The words under a prefix that are letters alone, as they are kept. */
  stems(prefix: string): string[] {
    const out: string[] = [];
    for (const lexeme of this.found.keys()) {
      const stem = lexeme.startsWith(prefix) ? lexeme.slice(prefix.length) : '';
      if (CAN_BE_MISSPELT.test(stem)) out.push(stem);
    }
    return out;
  }

  private take(lexeme: string, at: string): void {
    if (lexeme.length > LONGEST_LEXEME) return;
    const bytes = utf8Length(lexeme) + (at ? BYTES_OF_POSITIONS + BYTES_A_POSITION : 0);
    if (this.bytes + bytes > MOST_BYTES) {
      this.leftOut += 1;
      return;
    }
    this.bytes += bytes;
    this.found.set(lexeme, at);
  }

  toString(): string {
    const out: string[] = [];
    for (const [lexeme, positions] of this.found) {
      out.push(positions ? `'${lexeme}':${positions}` : `'${lexeme}'`);
    }
    return out.join(' ');
  }
}

/** A span of a text to be lit. */
export interface Lit {
  start: number;
  end: number;
}

/** What to look for in a text: stems that match a token, beginnings of words, and runs of stems. */
export interface Sought {
  stems: Set<string>;
  prefixes: string[];
  phrases: string[][];
}

/** A stem ends otherwise than its word in its last two letters at most (Porter 1980), so what stands before is in both. */
const ALTERED = 2;
/** Of shorter ones nothing would be left to look for. */
const TELLING = 4;

/** Whether a text may hold anything that is sought: most hold nothing, and are not taken to words for it. */
function mayHold(text: string, { stems, prefixes, phrases }: Sought): boolean {
  if (!/^[\x00-\x7f]*$/.test(text)) return true;
  const plain = text.toLowerCase().replaceAll("'", '');
  const holds = (s = ''): boolean => s.length < TELLING || plain.includes(s.slice(0, s.length - ALTERED));
  return prefixes.some(holds) || phrases.some((p) => holds(p[0])) || [...stems].some(holds);
}

/** The spans of a text that match, in order, without overlap. */
export function findLit(text: string, sought: Sought): Lit[] {
  if (!mayHold(text, sought)) return [];
  const all = tokens(text);
  const out: Lit[] = [];
  for (let i = 0; i < all.length; i += 1) {
    const t = all[i]!;
    const run = sought.phrases.find((p) => p.every((s, k) => all[i + k]?.stem === s));
    if (run?.length) {
      out.push({ start: t.start, end: all[i + run.length - 1]!.end });
      i += run.length - 1;
    } else if (
      sought.stems.has(t.stem) ||
      sought.prefixes.some((p) => fold(text.slice(t.start, t.end)).startsWith(p) || t.stem.startsWith(p))
    ) {
      out.push({ start: t.start, end: t.end });
    }
  }
  return out;
}

export interface Snippet {
  text: string;
  lit: Lit[];
}

/** The part of a text with most of what is sought in it, at most about `size` characters, cut at words. */
export function snippet(text: string, sought: Sought, size = 160): Snippet | undefined {
  const lit = findLit(text, sought);
  if (!lit.length) return undefined;
  let best = 0;
  let most = 0;
  for (let i = 0, j = 0; i < lit.length; i += 1) {
    while (j < lit.length && lit[j]!.end - lit[i]!.start <= size * 0.7) j += 1;
    if (j - i > most) [most, best] = [j - i, i];
  }
  return excerpt(text, lit, lit[best]!, size);
}

/** The part of a text around one of the lit words, cut at words. */
export function excerpt(text: string, lit: Lit[], at: Lit, size: number): Snippet {
  const from = Math.max(0, at.start - Math.round(size * 0.25));
  const start = from === 0 ? 0 : from + (/^\S*\s/.exec(text.slice(from, at.start))?.[0].length ?? at.start - from);
  const cut = start + size;
  const last = text.slice(at.end, cut + 1).search(/\s\S*$/);
  const end = cut >= text.length ? text.length : at.end + Math.max(0, last);
  const body = text.slice(start, end).replace(/\s/g, ' ');
  const before = start > 0 ? '… ' : '';
  return {
    text: before + body + (end < text.length ? ' …' : ''),
    lit: lit
      .filter((l) => l.start >= start && l.end <= end)
      .map((l) => ({ start: l.start - start + before.length, end: l.end - start + before.length })),
  };
}
