/**
 * The ask line's language: words (all must be there), "phrases", -not, field:value, `or`, brackets, word* for
 * beginnings. Nothing typed is ever an error that stops: what cannot be read is taken as words and a note says so.
 */
import { fieldNamed } from './fields.ts';
import type { Node } from './tree.ts';

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
}

export function parseQuery(text: string): ParsedQuery {
  return new Parser(text).run();
}

class Parser {
  private pos = 0;
  private depth = 0;
  private readonly notes: Note[] = [];
  private readonly outer: { start: number; end: number; node: Node }[] = [];

  constructor(private readonly text: string) {}

  run(): ParsedQuery {
    const groups: Node[] = [];
    while (this.pos < this.text.length) {
      groups.push(this.or());
      if (this.text[this.pos] === ')') this.pos += 1;
    }
    return {
      tree: join(
        'and',
        groups.filter((g) => g.is !== 'all'),
      ),
      notes: this.notes,
      parts: this.outer,
    };
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
      if (!node) continue;
      parts.push(node);
      if (this.depth === 0) this.outer.push({ start, end: this.pos, node });
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

  private fieldOrWord(): Node | undefined {
    const m = /([A-Za-z]+):/y;
    m.lastIndex = this.pos;
    const found = m.exec(this.text);
    const name = found && fieldNamed(found[1]!);
    if (name) {
      this.pos = m.lastIndex;
      if (/["“]/.test(this.text[this.pos] ?? ''))
        return { is: 'field', field: name, text: this.quoted().trim(), phrase: true };
      return { is: 'field', field: name, text: this.run_(/[^\s)]*/y), phrase: false };
    }
    const start = this.pos;
    const raw = this.run_(/[^\s()"“”]+/y) || this.run_(/./sy);
    if (found && !/^https?:/i.test(raw)) {
      this.note(start, this.pos, `“${found[1]}” is not a field; it was searched as a word`);
    }
    const prefix = /\*$/.test(raw);
    const word = raw.replace(/\*+$/, '');
    return /[\p{L}\p{N}]/u.test(word) ? { is: 'word', text: word, ...(prefix ? { prefix } : {}) } : undefined;
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

function join(is: 'and' | 'or', parts: Node[]): Node {
  if (!parts.length) return { is: 'all' };
  if (parts.length === 1) return parts[0]!;
  return { is, parts: parts.flatMap((p) => (p.is === is ? p.parts : [p])) };
}
