/**
 * The ask line's language: words (all must be there), "phrases", -not, field:value, `or`, brackets, word* for
 * beginnings, word~ for other spellings, near/5 and before/5. Nothing typed is ever an error that stops: what cannot be
 * read is taken as words and a note says so.
 */
import { FIELD_NAMES, fieldNamed, mistakeIn } from './fields.ts';
import { FURTHEST, join, type Node } from './tree.ts';

export interface Note {
  /** Offsets into the text. */
  start: number;
  end: number;
  says: string;
}

export interface ParsedQuery {
  tree: Node;
  notes: Note[];
  /** The parts as they stand in the text, at the outermost level: what a page shows as chips. */
  parts: { start: number; end: number; node: Node }[];
  /** Where in the text each field with its value stands. */
  spans: Map<Node, { start: number; end: number }>;
}

export function parseQuery(text: string): ParsedQuery {
  return new Parser(text).run();
}

/** Brackets within brackets, so deep: nobody writes more by hand, and a stack has an end. */
const DEEPEST = 50;

class Parser {
  private pos = 0;
  private depth = 0;
  private readonly notes: Note[] = [];
  private readonly outer: { start: number; end: number; node: Node }[] = [];
  private readonly spans = new Map<Node, { start: number; end: number }>();

  constructor(private readonly text: string) {}

  run(): ParsedQuery {
    const groups: Node[] = [];
    while (this.pos < this.text.length) {
      groups.push(this.or());
      if (this.text[this.pos] === ')') {
        this.note(this.pos, this.pos + 1, 'This bracket closes nothing; it was passed over');
        this.pos += 1;
      }
    }
    const tree = join(
      'and',
      groups.filter((g) => g.is !== 'all'),
    );
    return { tree, notes: this.notes, parts: this.outer, spans: this.spans };
  }

  private or(): Node {
    const parts = [this.and()];
    while (this.word('or')) parts.push(this.and());
    return join(
      'or',
      parts.filter((p) => p.is !== 'all'),
    );
  }

  private and(): Node {
    const parts: Node[] = [];
    for (;;) {
      this.space();
      if (this.pos >= this.text.length || this.text[this.pos] === ')' || this.peekWord('or')) break;
      const start = this.pos;
      const node = this.unary();
      const near = node && this.near(node, start);
      if (!near) continue;
      parts.push(near);
      if (this.depth === 0) this.outer.push({ start, end: this.pos, node: near });
    }
    return join('and', parts);
  }

  private unary(): Node | undefined {
    const c = this.text[this.pos];
    if ((c === '-' || c === '−') && /[^\s\-)]/.test(this.text[this.pos + 1] ?? ' ')) {
      this.pos += 1;
      const part = this.unary();
      return part && { is: 'not', part };
    }
    if (c === '(') {
      this.pos += 1;
      if (this.depth >= DEEPEST) return undefined;
      this.depth += 1;
      const start = this.pos;
      const node = this.or();
      this.depth -= 1;
      if (this.text[this.pos] === ')') this.pos += 1;
      else this.note(start - 1, this.pos, 'This bracket does not close; it was read to the end');
      return node.is === 'all' ? undefined : node;
    }
    if (c === '"' || c === '“') {
      const phrase = this.quoted();
      return /[\p{L}\p{N}]/u.test(phrase) ? { is: 'phrase', text: phrase } : undefined;
    }
    return this.fieldOrWord();
  }

  /** What follows `near/5` or `before/5` joins what stood before it; of several in a row each stands near the next. */
  private near(first: Node, start: number): Node {
    const pairs: Node[] = [];
    let left = first;
    for (;;) {
      const m = /\s+(near|before)\/(\d{1,3})(?=[\s"“]|$)/iy;
      m.lastIndex = this.pos;
      const found = m.exec(this.text);
      if (!found) break;
      this.pos = m.lastIndex;
      this.space();
      const at = this.pos;
      const right = this.pos < this.text.length && this.text[this.pos] !== ')' ? this.unary() : undefined;
      const stands = (n: Node | undefined): boolean => n?.is === 'word' || n?.is === 'phrase';
      const sign = `“${found[1]!.toLowerCase()}/${found[2]}”`;
      if (!right) {
        this.note(
          m.lastIndex - found[0].trim().length,
          m.lastIndex,
          `${sign} needs a word or a phrase after it; it was passed over`,
        );
        break;
      }
      if (!stands(left) || !stands(right)) {
        this.note(
          start,
          this.pos,
          `${sign} stands between words or phrases alone; both sides were asked for without it`,
        );
        if (!pairs.length) pairs.push(left);
        pairs.push(right);
      } else {
        const asked = Number(found[2]);
        const within = Math.min(Math.max(asked, 1), FURTHEST);
        if (within !== asked) this.note(at, this.pos, `Words stand 1 to ${FURTHEST} apart; ${within} was taken`);
        const ordered = found[1]!.toLowerCase() === 'before';
        pairs.push({ is: 'near', left, right, within, ordered } as Node);
      }
      left = right;
    }
    return pairs.length ? join('and', pairs) : first;
  }

  private fieldOrWord(): Node | undefined {
    const m = /([A-Za-z][A-Za-z-]*):/y;
    m.lastIndex = this.pos;
    const found = m.exec(this.text);
    const name = found && fieldNamed(found[1]!);
    if (name) {
      const start = this.pos;
      this.pos = m.lastIndex;
      const quoted = /["“]/.test(this.text[this.pos] ?? '');
      const value = quoted ? this.quoted().trim() : this.run_(/[^\s)]*/y);
      // What is about to be named asks for nothing yet.
      if (!value && !quoted) return undefined;
      const mistake = mistakeIn(name, value);
      if (mistake) this.note(start, this.pos, `${mistake}. Nothing was found by it`);
      const node: Node = { is: 'field', field: name, text: value, phrase: quoted };
      this.spans.set(node, { start, end: this.pos });
      return node;
    }
    const start = this.pos;
    const raw = this.run_(/[^\s()"“”]+/y) || this.run_(/./sy);
    if (found && !/^https?:/i.test(raw)) {
      const meant = closest(found[1]!.toLowerCase());
      this.note(
        start,
        this.pos,
        `“${found[1]}” is not a field; it was searched as a word${meant ? `. Did you mean “${meant}:”?` : ''}`,
      );
    }
    const sign = /[*~]+$/.exec(raw)?.[0][0];
    const word = raw.replace(/[*~]+$/, '');
    if (!/[\p{L}\p{N}]/u.test(word)) return undefined;
    return { is: 'word', text: word, ...(sign === '*' ? { prefix: true } : sign === '~' ? { close: true } : {}) };
  }

  private quoted(): string {
    const start = this.pos;
    this.pos += 1;
    const end = this.text.slice(this.pos).search(/["”]/);
    if (end < 0) {
      this.note(start, this.text.length, 'This quotation does not close; it was read to the end');
      const rest = this.text.slice(this.pos);
      this.pos = this.text.length;
      return rest;
    }
    const inside = this.text.slice(this.pos, this.pos + end);
    this.pos += end + 1;
    return inside;
  }

  private run_(pattern: RegExp): string {
    pattern.lastIndex = this.pos;
    const m = pattern.exec(this.text);
    if (!m) return '';
    this.pos = pattern.lastIndex;
    return m[0];
  }

  private peekWord(word: string): boolean {
    const m = new RegExp(`${word}(?=[\\s(]|$)`, 'iy');
    m.lastIndex = this.pos;
    return (
      m.test(this.text) &&
      (this.pos > 0 || this.text.length > word.length) &&
      this.text.slice(0, this.pos).trim() !== ''
    );
  }

  private word(word: string): boolean {
    this.space();
    if (!this.peekWord(word)) return false;
    this.pos += word.length;
    return true;
  }

  private space(): void {
    this.run_(/\s*/y);
  }

  private note(start: number, end: number, says: string): void {
    this.notes.push({ start, end, says });
  }
}

/** The name of a field that is one letter away, or begins so. */
function closest(name: string): string | undefined {
  return FIELD_NAMES.find((n) => n.startsWith(name) || isOneAway(n, name));
}

/** Whether one letter more, less or other, or two that changed places, make one word of the other. */
function isOneAway(a: string, b: string): boolean {
  if (Math.abs(a.length - b.length) > 1) return false;
  let i = 0;
  while (i < a.length && a[i] === b[i]) i += 1;
  const rest = (n: string, k: number): string => n.slice(k);
  const swapped = a[i] === b[i + 1] && a[i + 1] === b[i] && rest(a, i + 2) === rest(b, i + 2);
  return swapped || rest(a, i + 1) === rest(b, i + 1) || rest(a, i + 1) === rest(b, i) || rest(a, i) === rest(b, i + 1);
}
