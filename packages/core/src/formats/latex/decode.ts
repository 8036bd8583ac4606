/**
 * LaTeX markup in field values, to plain text with the inline tags CSL knows (<i>, <b>, <sup>, <sub>). Mathematics that
 * reads on one line becomes text too, any other stays as it is between its dollars. Accents compose to one character
 * (Unicode NFC). Spaces after a command are swallowed, as TeX does.
 */
import { characterOf, shortBlanks } from '../../text/index.ts';
import { mathToText } from './math.ts';
import { braced, expand, type Macros } from './macros.ts';
import { ACCENTS, ALONE, BEFORE_LENGTH, OLD_STYLES, ONE_OF, PLAIN, SILENT, STYLES, SYMBOLS } from './symbols.ts';

/** What became of a command nobody knows. */
export type Fate = 'its argument was kept' | 'its name was kept as text' | 'taken for a change of type';

/** What goes with reading a value, and what comes of it beside the text. */
export interface Reading {
  /** The commands the file defines. */
  macros?: Macros;
  /** Commands nobody knows, each with what was done about it. */
  unknown?: Map<string, Fate>;
  /** Addresses that the text itself does not show: those of `\href`. */
  links?: string[];
}

/** Decodes a field value. */
export function latexToText(value: string, reading: Reading = {}): string {
  if (!/[\\{}$~%`]|--|''/.test(value)) return oneSpaced(value);
  return oneSpaced(new Decoder(value, reading).run()).normalize('NFC');
}

/**
 * Decodes the value of a field of names so that it can be taken apart: groups that keep words together stand in single
 * braces, accents and symbols are characters, a tie is a space.
 */
export function latexNames(value: string, reading: Reading = {}): string {
  return oneSpaced(new Decoder(value, reading).names()).normalize('NFC');
}

/**
 * The value of a field that is taken as it stands, such as an address: signs LaTeX needs escaped are themselves.
 */
export function latexVerbatim(value: string): string {
  return value
    .trim()
    .replace(/^\\(?:url|path|nolinkurl)\s*\{(.*)\}$/s, '$1')
    .replace(/\$?\\(?:textasciitilde|sim)(?:\{\}|(?![A-Za-z]))\s?\$?|\{\\textasciitilde\}|\\~(?:\{\})?|\\string~/g, '~')
    .replace(/\{?\\textunderscore(?:\{\}|(?![A-Za-z]))\}?/g, '_')
    .replace(/\$?\\?text(less|greater)(?:\{\})?|\$([<>])\$/g, (_, t: string | undefined, sign: string | undefined) =>
      t ? (t === 'less' ? '<' : '>') : sign!,
    )
    .replace(/\\([_%&#$ /])/g, '$1')
    .replace(/\{([^{}]?)\}/g, '$1')
    .trim();
}

/** Without space at the ends or twice in a row; a space that does not break stays. */
function oneSpaced(text: string): string {
  return shortBlanks(/[^\S \u00A0]| {2}/.test(text) ? text.replace(/[^\S\u00A0\u2009]+/g, ' ') : text).trim();
}

/** Characters that stand for themselves. */
const ORDINARY = /[^\\{}$~`'%!?-]+/y;
/** How deep groups may stand in one another; the braces of deeper ones are passed over. */
const MOST_GROUPS = 200;
/** How deep commands of the file may stand in one another, and how much text they may make of one value. */
const DEEPEST = 8;
const MOST = 100_000;

class Decoder {
  private i = 0;
  /** Single quotation marks that have opened and not closed. */
  private quotes = 0;
  private nested = 0;

  constructor(
    private readonly s: string,
    private readonly reading: Reading,
    private readonly depth = 0,
    private readonly spent = { characters: 0 },
  ) {}

  run(): string {
    let out = '';
    while (this.i < this.s.length) {
      out += this.group();
      if (this.s[this.i] === '}') this.i += 1;
    }
    return out;
  }

  names(): string {
    let out = '';
    while (this.i < this.s.length) {
      const from = this.i;
      let text = this.group('{');
      if (text === '' && this.s[this.i] === '{') {
        this.i += 1;
        text = this.group();
        // A group that begins with a command is a letter ("special character"), not a word kept whole.
        const letter = this.s[from + 1] === '\\' && !/[\s,]/.test(text);
        text = letter ? text : `{${text.replace(/[{}]/g, '')}}`;
        this.i += 1;
      } else if (this.s[this.i] === '}') this.i += 1;
      out += text.replaceAll('\u00A0', ' ');
    }
    return out.replaceAll('{}', '');
  }

  /** Reads to the closing brace of the group, the stop or the end; the brace itself is left. */
  private group(stop?: string): string {
    this.nested += 1;
    const text = this.nested > MOST_GROUPS ? this.flat() : this.inside(stop);
    this.nested -= 1;
    return text;
  }

  /** Too deep to be anything a person wrote: the text without its braces, up to the next that closes. */
  private flat(): string {
    const end = this.s.indexOf('}', this.i);
    const text = this.s.slice(this.i, end < 0 ? undefined : end);
    this.i = end < 0 ? this.s.length : end;
    return text.replace(/[{\\]/g, '');
  }

  private inside(stop?: string): string {
    const from = this.i;
    let out = '';
    let closing = '';
    while (this.i < this.s.length) {
      const c = this.s[this.i]!;
      if (c === '}' || c === stop) break;
      ORDINARY.lastIndex = this.i;
      if (ORDINARY.test(this.s)) {
        out += this.s.slice(this.i, ORDINARY.lastIndex);
        this.i = ORDINARY.lastIndex;
      } else if (c === '{') {
        this.i += 1;
        out += this.group();
        this.i += 1;
      } else if (c === '\\') {
        const style = this.oldStyle();
        if (style) {
          out += `<${style}>`;
          closing = `</${style}>${closing}`;
        } else out += this.command(this.i === from && from > 0 && this.s[from - 1] === '{');
      } else if (c === '$') out += this.math();
      else out += this.plain(c);
    }
    return out + closing;
  }

  private plain(c: string): string {
    const s = this.s;
    const before = s[this.i - 1];
    this.i += 1;
    const next = s[this.i];
    if (c === '~') return '\u00A0';
    if (c === '-' && next === '-') {
      this.i += 1;
      if (s[this.i] !== '-') return '–';
      this.i += 1;
      return '—';
    }
    if ((c === '?' || c === '!') && next === '`') return ((this.i += 1), c === '?' ? '¿' : '¡');
    if (c === '`') {
      if (next === '`') return ((this.i += 1), '“');
      this.quotes += 1;
      return '‘';
    }
    if (c === "'") {
      if (next === "'") return ((this.i += 1), '”');
      const within = before && next && /[\p{L}\p{N}]/u.test(before) && /[\p{L}\p{N}]/u.test(next);
      if (!this.quotes || within) return c;
      this.quotes -= 1;
      return '’';
    }
    return c === '%' ? this.comment() : c;
  }

  /** A per cent sign at the end of a line joins it to the next, as TeX does; any other is what the writer meant. */
  private comment(): string {
    const end = /\r?\n\s*/y;
    end.lastIndex = this.i;
    if (!end.test(this.s)) return '%';
    this.i = end.lastIndex;
    return '';
  }

  private math(): string {
    const dollars = this.s.startsWith('$$', this.i) ? '$$' : '$';
    const end = this.s.indexOf(dollars, this.i + dollars.length);
    if (end < 0 || end === this.i + 1) {
      this.i += dollars.length;
      return dollars;
    }
    const raw = this.s.slice(this.i, end + dollars.length);
    this.i = end + dollars.length;
    return mathToText(raw.slice(dollars.length, -dollars.length)) ?? raw;
  }

  /** The formula of \\ensuremath or of \\( … \\), whose opening has been read. */
  private formula(tex: string): string {
    return mathToText(tex) ?? `$${tex}$`;
  }

  private upTo(close: string): string {
    const end = this.s.indexOf(close, this.i);
    const inside = this.s.slice(this.i, end < 0 ? undefined : end);
    this.i = end < 0 ? this.s.length : end + close.length;
    return inside;
  }

  private oldStyle(): string | undefined {
    const m = /\\(em|it|itshape|sl|slshape|bf|bfseries)(?![A-Za-z])\s*/y;
    m.lastIndex = this.i;
    const found = m.exec(this.s);
    if (!found) return undefined;
    this.i = m.lastIndex;
    return OLD_STYLES[found[1]!];
  }

  /** @param first whether the command is the first thing in its group */
  private command(first = false): string {
    const word = /\\([A-Za-z]+)(\*?)([ \t\r\n]*)|\\(.)/sy;
    word.lastIndex = this.i;
    const m = word.exec(this.s);
    if (!m) {
      // A space was escaped where a name ends.
      this.i += 1;
      return '';
    }
    const name = m[1] ?? m[4]!;
    const after = this.s[this.i + 1 + name.length] ?? '';
    this.i = word.lastIndex;
    if (ACCENTS[name] !== undefined && (m[4] || name.length > 1 || /[\s{\\]/.test(after))) return this.accented(name);
    if (SYMBOLS[name] !== undefined) return this.symbol(SYMBOLS[name]);
    if (name === '(' || name === '[') return this.formula(this.upTo(name === '(' ? '\\)' : '\\]'));
    if (name === 'ensuremath') return this.formula(this.raw());
    if (STYLES[name]) return `<${STYLES[name]}>${this.argument()}</${STYLES[name]}>`;
    if (PLAIN.has(name)) return this.argument();
    const silent = SILENT[name];
    if (silent !== undefined) {
      for (let n = 0; n < silent; n += 1) this.raw();
      return silent || m[4] ? '' : this.symbol('');
    }
    if (m[4]) return name;
    return this.rare(name) ?? this.defined(name) ?? this.nobodys(name, first, m[2]! + m[3]!);
  }

  /** Commands that are read in a way of their own. */
  private rare(name: string): string | undefined {
    const one = ONE_OF[name];
    if (one) return Array.from({ length: one.of }, () => this.argument())[one.shown];
    if (name === 'mkbibquote' || name === 'enquote') return `“${this.argument()}”`;
    if (name === 'mkbibparens') return `(${this.argument()})`;
    if (name === 'mkbibbrackets') return `[${this.argument()}]`;
    if (name === 'cs') return `\\${this.raw()}`;
    if (name === 'url' || name === 'nolinkurl') return latexVerbatim(this.raw());
    if (name === 'href') {
      const address = latexVerbatim(this.raw());
      const text = this.argument();
      this.reading.links?.push(address);
      return text || address;
    }
    if (name === 'verb') return this.verbatim();
    if (name === 'char' || name === 'symbol') return this.character();
    if (name === 'switchargs') {
      const [a, b] = [this.argument(), this.argument()];
      return b + a;
    }
    if (name === 'hspace') return (this.raw(), ' ');
    if (BEFORE_LENGTH.test(name)) {
      const length = /=?\s*-?(?:\d*[.,]?\d+|\\[A-Za-z@]+)\s*(?:pt|em|ex|mu|cm|mm|in|sp|bp|pc)?\s?/y;
      length.lastIndex = this.i;
      if (length.test(this.s)) this.i = length.lastIndex;
      return '';
    }
    return mathToText(`\\${name}`);
  }

  /** A command the file defines, with its arguments put in. */
  private defined(name: string): string | undefined {
    const macro = this.reading.macros?.get(name);
    if (!macro || this.depth >= DEEPEST) return undefined;
    const args: string[] = [];
    if (macro.optional !== undefined) args.push(this.s[this.i] === '[' ? this.upTo(']').slice(1) : macro.optional);
    while (args.length < macro.arity) args.push(this.raw());
    if (!macro.arity) this.symbol('');
    const body = expand(macro, args);
    this.spent.characters += body.length;
    if (this.spent.characters > MOST) return undefined;
    return new Decoder(body, this.reading, this.depth + 1, this.spent).run();
  }

  /** A command nobody knows: its argument is text; without one, its own name is, or it changes the type of its group. */
  private nobodys(name: string, first: boolean, between: string): string {
    const { unknown } = this.reading;
    if (this.s.startsWith('{}', this.i)) {
      unknown?.set(name, 'its name was kept as text');
      this.i += 2;
      return name;
    }
    if (this.s[this.i] === '{' && !between.includes('\n')) {
      unknown?.set(name, 'its argument was kept');
      return this.argument();
    }
    const next = this.s[this.i];
    if (first && between && next !== undefined && next !== '}') {
      unknown?.set(name, 'taken for a change of type');
      return '';
    }
    unknown?.set(name, 'its name was kept as text');
    return name + (/\s/.test(between) && next !== '}' ? ' ' : '');
  }

  private symbol(text: string): string {
    if (this.s.startsWith('{}', this.i)) this.i += 2;
    return text;
  }

  private verbatim(): string {
    const mark = this.s[this.i];
    if (mark === undefined) return '';
    this.i += 1;
    return this.upTo(mark);
  }

  private character(): string {
    const m = /\{?(?:"([0-9A-Fa-f]+)|'([0-7]+)|(\d+)|`\\?(.))\s?/y;
    m.lastIndex = this.i;
    const found = m.exec(this.s);
    if (!found) return '';
    this.i = m.lastIndex;
    if (found[0]!.startsWith('{') && this.s[this.i] === '}') this.i += 1;
    if (found[4]) return found[4];
    return characterOf(found[1] ? parseInt(found[1], 16) : found[2] ? parseInt(found[2], 8) : Number(found[3]));
  }

  private accented(name: string): string {
    while (this.s[this.i] === ' ') this.i += 1;
    let base = this.argument();
    if (base === '') return ALONE[name] ?? '';
    // The dot of i and j gives way to the accent, also below another one.
    base = base.replace(/^ı/, 'i').replace(/^ȷ/, 'j');
    const first = /^[^]\p{M}*/u.exec(base)?.[0] ?? '';
    return first + ACCENTS[name]! + base.slice(first.length);
  }

  /** The next group, command or single character. */
  private argument(): string {
    const c = this.s[this.i];
    if (c === undefined || c === '}') return '';
    if (c === '{') {
      this.i += 1;
      const inside = this.group();
      this.i += 1;
      return inside;
    }
    if (c === '\\') {
      this.nested += 1;
      const text = this.nested > MOST_GROUPS ? this.flat() : this.command();
      this.nested -= 1;
      return text;
    }
    const character = String.fromCodePoint(this.s.codePointAt(this.i)!);
    this.i += character.length;
    return character;
  }

  /** The next argument as it is written. */
  private raw(): string {
    const space = /\s*/y;
    space.lastIndex = this.i;
    space.test(this.s);
    const c = this.s[space.lastIndex];
    if (c === undefined || c === '}') return '';
    this.i = space.lastIndex;
    if (c === '{') {
      const inside = braced(this.s, this.i);
      if (inside === undefined) return this.upTo('}').slice(1);
      this.i += inside.length + 2;
      return inside;
    }
    const m = /\\[A-Za-z]+\s*|\\?[^]/uy;
    m.lastIndex = this.i;
    const found = m.exec(this.s)?.[0] ?? '';
    this.i += found.length;
    return found;
  }
}
