/**
 * A tolerant tokenizer for BibTeX files. It yields entries with the raw text of their fields and the places they
 * stand at. One broken entry never costs its neighbours: where a brace or quotation does not close, the entry ends
 * before the next line that begins another one.
 *
 * Source of the grammar: Patashnik, "BibTeXing" (1988), and the BibLaTeX manual, section 2.
 */
export interface RawField {
  name: string;
  /** The value with its pieces joined and abbreviations put in, its outer delimiters taken off. */
  value: string;
  offset: number;
}

export interface RawEntry {
  type: string;
  key: string;
  fields: RawField[];
  offset: number;
}

export interface Trouble {
  rule: string;
  offset: number;
  what: string;
  done: string;
  severity: 'warning' | 'error';
}

const MONTH_MACROS: Record<string, string> = {
  jan: 'January',
  feb: 'February',
  mar: 'March',
  apr: 'April',
  may: 'May',
  jun: 'June',
  jul: 'July',
  aug: 'August',
  sep: 'September',
  oct: 'October',
  nov: 'November',
  dec: 'December',
};

/** A line that begins a field, inside a value: the value before it did not close. */
const SWALLOWED = /\n[ \t]*[A-Za-z][\w-]*[ \t]*=[ \t]*(?:[{"]|\d+[ \t]*,)/;

const ENTRY_START = /@\s*([A-Za-z]+)\s*([{(])/g;

/** What a file tells beside its entries. */
export interface Beside {
  trouble(trouble: Trouble): void;
  preamble(text: string): void;
}

/** The entries of a file one after another, in the order they stand. */
export function tokenize(text: string, beside: Beside): Generator<RawEntry, void> {
  return new Scanner(text, beside).run();
}

class Broken extends Error {
  constructor(
    readonly what: string,
    readonly offset: number,
  ) {
    super(what);
  }
}

class Scanner {
  /** Troubles of the entry that is being read; told once it has been. */
  private troubles: Trouble[] = [];
  private readonly macros = new Map(Object.entries(MONTH_MACROS));
  private pos = 0;
  private limit: number;
  private recovering = false;
  /** The first value that did not close, met while recovering. */
  private mended: Broken | undefined;

  constructor(
    private readonly text: string,
    private readonly beside: Beside,
  ) {
    this.limit = text.length;
  }

  *run(): Generator<RawEntry, void> {
    const start = new RegExp(ENTRY_START);
    for (;;) {
      start.lastIndex = this.pos;
      const m = start.exec(this.text);
      if (!m) return;
      this.pos = start.lastIndex;
      const type = m[1]!.toLowerCase();
      const close = m[2] === '{' ? '}' : ')';
      if (type === 'comment') this.skipComment(close);
      else {
        const entry = this.entry(type, close, m.index);
        this.troubles.forEach((t) => this.beside.trouble(t));
        this.troubles = [];
        if (entry) yield entry;
      }
    }
  }

  private skipComment(close: string): void {
    const from = this.pos;
    try {
      if (close === '}') this.braced();
    } catch {
      this.pos = from;
    }
  }

  /** The entry, or nothing when it is a definition or nothing could be read of it. */
  private entry(type: string, close: string, offset: number): RawEntry | undefined {
    const bodyStart = this.pos;
    const entry: RawEntry = { type, key: '', fields: [], offset };
    this.limit = this.text.length;
    try {
      this.body(entry, close);
      return this.kept(entry);
    } catch (error) {
      if (!(error instanceof Broken)) throw error;
      this.troubles = [];
      return this.recover(entry, close, bodyStart, error) ? this.kept(entry) : undefined;
    }
  }

  /** Reads the entry again within the lines that can belong to it, and keeps the fields that were whole; false if none. */
  private recover(entry: RawEntry, close: string, bodyStart: number, first: Broken): boolean {
    const next = /\n[ \t]*@\s*[A-Za-z]+\s*[{(]/g;
    next.lastIndex = bodyStart;
    const found = next.exec(this.text);
    this.limit = found ? found.index : this.text.length;
    this.pos = bodyStart;
    entry.fields = [];
    this.recovering = true;
    this.mended = undefined;
    let whole = true;
    try {
      this.body(entry, close);
    } catch (error) {
      if (!(error instanceof Broken)) throw error;
      whole = false;
    }
    this.recovering = false;
    const trouble = this.mended ?? first;
    const kept = entry.fields.length;
    this.troubles.push({
      rule: 'broken-entry',
      severity: kept ? 'warning' : 'error',
      offset: trouble.offset,
      what: `${trouble.what} in the entry “${entry.key || entry.type}”`,
      done: kept
        ? kept === 1
          ? 'its one field was read as far as it goes'
          : `its ${kept} fields were read as far as they go`
        : 'the entry was left out',
    });
    this.pos = Math.max(this.pos, this.limit);
    this.limit = this.text.length;
    return whole || kept > 0;
  }

  private kept(entry: RawEntry): RawEntry | undefined {
    if (entry.type === 'string') for (const f of entry.fields) this.macros.set(f.name, f.value);
    else if (entry.type !== 'preamble' && (entry.fields.length || entry.key)) return entry;
    return undefined;
  }

  private body(entry: RawEntry, close: string): void {
    this.space();
    if (entry.type === 'preamble') {
      const text = this.value();
      this.end(close);
      this.beside.preamble(text);
      return;
    }
    if (entry.type !== 'string') entry.key = this.key(close);
    for (;;) {
      this.space();
      const c = this.text[this.pos];
      if (this.pos >= this.limit) throw new Broken('The entry does not end', entry.offset);
      if (c === ',') {
        this.pos += 1;
        continue;
      }
      if (c === close) break;
      this.field(entry);
    }
    this.end(close);
  }

  private end(close: string): void {
    this.space();
    if (this.text[this.pos] !== close || this.pos >= this.limit) throw new Broken(`“${close}” is missing`, this.pos);
    this.pos += 1;
  }

  private key(close: string): string {
    const from = this.pos;
    const end = /[,\n}=]|\)/g;
    end.lastIndex = from;
    for (let m = end.exec(this.text); m && m.index < this.limit; m = end.exec(this.text)) {
      if (m[0] === ')' && close !== ')') continue;
      if (m[0] === '=') {
        // No key at all: the first thing is a field.
        this.pos = from;
        return '';
      }
      this.pos = m.index;
      const key = this.text.slice(from, m.index).trim();
      if (m[0] !== ',' && /[\s{]/.test(key)) throw new Broken('The key is not followed by a comma', from);
      return key;
    }
    throw new Broken('The entry does not end', from);
  }

  private field(entry: RawEntry): void {
    const name = /[^\s=,{}"#%]+/y;
    name.lastIndex = this.pos;
    const m = name.exec(this.text);
    const offset = this.pos;
    if (!m) throw new Broken(`“${this.text[this.pos]}” stands where a field should begin`, this.pos);
    this.pos = name.lastIndex;
    this.space();
    if (this.text[this.pos] !== '=') throw new Broken(`The field “${m[0]}” has no value`, offset);
    this.pos += 1;
    const value = this.recovering ? this.valueOrLine() : this.value();
    entry.fields.push({ name: m[0].toLowerCase(), value, offset });
    this.space();
    const c = this.text[this.pos];
    if (c !== ',' && c !== '}' && c !== ')' && this.pos < this.limit && !this.recovering) {
      this.troubles.push({
        rule: 'missing-comma',
        severity: 'warning',
        offset: this.pos,
        what: `A comma is missing after the field “${m[0]}”`,
        done: 'read as if it were there',
      });
    }
  }

  /** The value, or, where it does not close, what stands to the end of its line. */
  private valueOrLine(): string {
    const from = this.pos;
    try {
      const value = this.value();
      if (!SWALLOWED.test(value)) return value;
      throw new Broken('A brace does not close', from);
    } catch (error) {
      if (!(error instanceof Broken)) throw error;
      this.mended ??= error;
      const eol = this.text.indexOf('\n', from);
      this.pos = eol < 0 || eol > this.limit ? this.limit : eol;
      return this.text
        .slice(from, this.pos)
        .trim()
        .replace(/^[{"]|[,}"\s]+$/g, '');
    }
  }

  private value(): string {
    let out = '';
    for (;;) {
      this.space();
      out += this.piece();
      this.space();
      if (this.text[this.pos] !== '#') return out;
      this.pos += 1;
    }
  }

  private piece(): string {
    const c = this.text[this.pos];
    if (c === '{') {
      this.pos += 1;
      return this.braced();
    }
    if (c === '"') return this.quoted();
    const bare = /[^\s,{}"#=()%]+/y;
    bare.lastIndex = this.pos;
    const m = bare.exec(this.text);
    if (!m || m.index >= this.limit) throw new Broken('A value is missing', this.pos);
    this.pos = bare.lastIndex;
    if (/^\d+$/.test(m[0])) return m[0];
    const macro = this.macros.get(m[0].toLowerCase());
    if (macro !== undefined) return macro;
    this.troubles.push({
      rule: 'unknown-macro',
      severity: 'warning',
      offset: m.index,
      what: `The abbreviation “${m[0]}” is not defined`,
      done: 'its name was taken for its value',
    });
    return m[0];
  }

  /** Reads to the brace that closes the one just passed; returns what stands between. */
  private braced(): string {
    const from = this.pos;
    let depth = 1;
    for (let i = from; i < this.limit; i += 1) {
      const c = this.text.charCodeAt(i);
      if (c === 92) i += 1;
      else if (c === 123) depth += 1;
      else if (c === 125) {
        depth -= 1;
        if (depth === 0) {
          this.pos = i + 1;
          return this.text.slice(from, i);
        }
      }
    }
    throw new Broken('A brace does not close', from - 1);
  }

  private quoted(): string {
    const from = this.pos + 1;
    let depth = 0;
    for (let i = from; i < this.limit; i += 1) {
      const c = this.text.charCodeAt(i);
      if (c === 92) i += 1;
      else if (c === 123) depth += 1;
      else if (c === 125) depth -= 1;
      else if (c === 34 && depth <= 0) {
        this.pos = i + 1;
        return this.text.slice(from, i);
      }
      if (depth < 0) break;
    }
    throw new Broken('A quotation does not close', from - 1);
  }

  private space(): void {
    for (;;) {
      const c = this.text.charCodeAt(this.pos);
      if (c === 32 || c === 10 || c === 13 || c === 9) this.pos += 1;
      else if (c === 37) {
        const eol = this.text.indexOf('\n', this.pos);
        this.pos = eol < 0 ? this.text.length : eol + 1;
      } else return;
    }
  }
}
