/**
 * LaTeX markup in field values, to plain text with the inline tags CSL knows (<i>, <b>, <sup>, <sub>), and back.
 * Mathematics that reads on one line becomes text too, any other stays as it is between its dollars. Accents compose
 * to one character (Unicode NFC).
 */
import { mathToText } from './latex-math.ts';

/** Combining character for each accent command of LaTeX (The LaTeX Companion, table of accents). */
const ACCENTS: Record<string, string> = {
  '`': '\u0300',
  "'": '\u0301',
  '^': '\u0302',
  '~': '\u0303',
  '"': '\u0308',
  '=': '\u0304',
  '.': '\u0307',
  u: '\u0306',
  v: '\u030C',
  H: '\u030B',
  c: '\u0327',
  d: '\u0323',
  b: '\u0331',
  k: '\u0328',
  r: '\u030A',
  t: '\u0361',
};

const SYMBOLS: Record<string, string> = {
  ss: 'ß',
  ae: 'æ',
  AE: 'Æ',
  oe: 'œ',
  OE: 'Œ',
  aa: 'å',
  AA: 'Å',
  o: 'ø',
  O: 'Ø',
  l: 'ł',
  L: 'Ł',
  i: 'ı',
  j: 'ȷ',
  dh: 'ð',
  DH: 'Ð',
  th: 'þ',
  TH: 'Þ',
  dj: 'đ',
  DJ: 'Đ',
  ng: 'ŋ',
  NG: 'Ŋ',
  S: '§',
  P: '¶',
  pounds: '£',
  euro: '€',
  copyright: '©',
  textcopyright: '©',
  textregistered: '®',
  texttrademark: '™',
  dag: '†',
  ddag: '‡',
  ldots: '…',
  dots: '…',
  textellipsis: '…',
  textendash: '–',
  textemdash: '—',
  textquoteleft: '‘',
  textquoteright: '’',
  textquotedblleft: '“',
  textquotedblright: '”',
  guillemotleft: '«',
  guillemotright: '»',
  textquotesingle: "'",
  textbackslash: '\\',
  textasciitilde: '~',
  textasciicircum: '^',
  textunderscore: '_',
  textdegree: '°',
  degree: '°',
  textmu: 'µ',
  textbar: '|',
  textless: '<',
  textgreater: '>',
  texteuro: '€',
  textsection: '§',
  slash: '/',
  TeX: 'TeX',
  LaTeX: 'LaTeX',
  textordfeminine: 'ª',
  textordmasculine: 'º',
  textexclamdown: '¡',
  textquestiondown: '¿',
  textbullet: '•',
  quotedblbase: '„',
  quotesinglbase: '‚',
  textperiodcentered: '·',
  textnumero: '№',
  S1: '§',
  textbraceleft: '{',
  textbraceright: '}',
  space: ' ',
  ' ': ' ',
};

const STYLES: Record<string, string> = {
  emph: 'i',
  textit: 'i',
  textsl: 'i',
  textbf: 'b',
  textsuperscript: 'sup',
  textsubscript: 'sub',
  mkbibemph: 'i',
};
const OLD_STYLES: Record<string, string> = { em: 'i', it: 'i', itshape: 'i', bf: 'b', bfseries: 'b' };
const SILENT = new Set([
  'relax',
  'noopsort',
  'protect',
  'xspace',
  'sc',
  'scshape',
  'rm',
  'sf',
  'tt',
  'normalfont',
  'small',
  'nobreak',
  'allowbreak',
  '/',
  '-',
]);

/** Decodes a field value. A command nobody knows keeps its argument and is named in `unknown`. */
export function latexToText(value: string, unknown?: Set<string>): string {
  if (!/[\\{}$~]|--|''|``/.test(value)) return oneSpaced(value);
  return oneSpaced(new Decoder(value, unknown).run()).normalize('NFC');
}

/**
 * Decodes the value of a field of names so that it can be taken apart: groups that keep words together stand in single
 * braces, accents and symbols are characters, a tie is a space.
 */
export function latexNames(value: string, unknown?: Set<string>): string {
  return oneSpaced(new Decoder(value, unknown).names()).normalize('NFC');
}

/** Without space at the ends or twice in a row; a space that does not break stays. */
function oneSpaced(text: string): string {
  return (/[^\S \u00A0]| {2}/.test(text) ? text.replace(/[^\S\u00A0]+/g, ' ') : text).trim();
}

/** Characters that stand for themselves. */
const ORDINARY = /[^\\{}$~`'-]+/y;

class Decoder {
  private i = 0;

  constructor(
    private readonly s: string,
    private readonly unknown?: Set<string>,
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
    return out;
  }

  /** Reads to the closing brace of the group, the stop or the end; the brace itself is left. */
  private group(stop?: string): string {
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
        } else out += this.command();
      } else if (c === '$') out += this.math();
      else out += this.plain(c);
    }
    return out + closing;
  }

  private plain(c: string): string {
    const s = this.s;
    this.i += 1;
    if (c === '~') return '\u00A0';
    if (c === '-' && s[this.i] === '-') {
      this.i += 1;
      if (s[this.i] !== '-') return '–';
      this.i += 1;
      return '—';
    }
    if (c === '`' && s[this.i] === '`') return ((this.i += 1), '“');
    if (c === "'" && s[this.i] === "'") return ((this.i += 1), '”');
    return c;
  }

  private math(): string {
    const end = this.s.indexOf('$', this.i + 1);
    if (end < 0) {
      this.i += 1;
      return '$';
    }
    const raw = this.s.slice(this.i, end + 1);
    this.i = end + 1;
    return mathToText(raw.slice(1, -1)) ?? raw;
  }

  /** The formula of \\ensuremath or of \\( … \\), whose opening has been read. */
  private formula(close: string): string {
    const end = this.s.indexOf(close, this.i);
    const tex = this.s.slice(this.i, end < 0 ? undefined : end);
    this.i = end < 0 ? this.s.length : end + close.length;
    return mathToText(tex) ?? `$${tex}$`;
  }

  private oldStyle(): string | undefined {
    const m = /\\(em|it|itshape|bf|bfseries)(?![A-Za-z])\s*/y;
    m.lastIndex = this.i;
    const found = m.exec(this.s);
    if (!found) return undefined;
    this.i = m.lastIndex;
    return OLD_STYLES[found[1]!];
  }

  private command(): string {
    const word = /\\([A-Za-z]+)\*?[ \t\n]*|\\(.)/sy;
    word.lastIndex = this.i;
    const m = word.exec(this.s);
    if (!m) {
      this.i += 1;
      return '\\';
    }
    const name = m[1] ?? m[2]!;
    const accent = ACCENTS[name];
    if (accent !== undefined && (m[2] || /[\s{\\]/.test(this.s[this.i + 1 + name.length] ?? ''))) {
      this.i = word.lastIndex;
      return this.accented(accent);
    }
    this.i = word.lastIndex;
    if (name === '(') return this.formula('\\)');
    if (name === 'ensuremath' && this.s[this.i] === '{') {
      this.i += 1;
      return this.formula('}');
    }
    if (SYMBOLS[name] !== undefined) return this.symbol(name, m[0]);
    if (STYLES[name]) return `<${STYLES[name]}>${this.argument()}</${STYLES[name]}>`;
    if (SILENT.has(name)) return '';
    if (m[2]) return name === '\\' ? ' ' : name === ',' || name === ';' || name === ':' ? '\u2009' : name;
    if (name === 'mkbibquote' || name === 'enquote') return `“${this.argument()}”`;
    if (name === 'url' || name === 'href' || name === 'path') return this.argument();
    if (name === 'char') return this.character();
    const sign = m[1] && mathToText(`\\${name}`);
    if (sign) return sign;
    this.unknown?.add(name);
    return this.s[this.i] === '{' ? this.argument() : '';
  }

  private symbol(name: string, raw: string): string {
    if (this.s.startsWith('{}', this.i)) this.i += 2;
    return SYMBOLS[name]! + (name.length > 2 && /\s$/.test(raw) && /^(ldots|dots|TeX|LaTeX)$/.test(name) ? ' ' : '');
  }

  private character(): string {
    const m = /(?:"([0-9A-Fa-f]+)|(\d+))\s?/y;
    m.lastIndex = this.i;
    const found = m.exec(this.s);
    if (!found) return '';
    this.i = m.lastIndex;
    const code = found[1] ? parseInt(found[1], 16) : Number(found[2]);
    return code > 0 && code < 0x110000 ? String.fromCodePoint(code) : '';
  }

  private accented(accent: string): string {
    while (this.s[this.i] === ' ') this.i += 1;
    let base = this.argument();
    if (base === 'ı') base = 'i';
    if (base === 'ȷ') base = 'j';
    const first = [...base][0] ?? '\u00A0';
    return first + accent + base.slice(first.length);
  }

  /** The next group, command or single character. */
  private argument(): string {
    const c = this.s[this.i];
    if (c === undefined) return '';
    if (c === '{') {
      this.i += 1;
      const inside = this.group();
      this.i += 1;
      return inside;
    }
    if (c === '\\') return this.command();
    if (c === '}') return '';
    this.i += 1;
    return c;
  }
}

const ESCAPES: Record<string, string> = {
  '\\': '\\textbackslash{}',
  '{': '\\textbraceleft{}',
  '}': '\\textbraceright{}',
  $: '\\$',
  '&': '\\&',
  '%': '\\%',
  '#': '\\#',
  _: '\\_',
  '~': '\\textasciitilde{}',
  '^': '\\textasciicircum{}',
  '\u00A0': '~',
};

/** Encodes text for a field: special characters escaped, inline tags as commands, mathematics it keeps left alone. */
export function textToLatex(text: string): string {
  return text
    .split(/(\$[^$]*\$|<\/?(?:i|b|sup|sub)>)/)
    .map((part) => {
      if (isMath(part)) return part;
      const tag = /^<(\/?)(i|b|sup|sub)>$/.exec(part);
      if (tag)
        return tag[1]
          ? '}'
          : { i: '\\emph{', b: '\\textbf{', sup: '\\textsuperscript{', sub: '\\textsubscript{' }[tag[2]!]!;
      return part.replace(/[\\{}$&%#_~^\u00A0]/g, (c) => ESCAPES[c]!);
    })
    .join('');
}

/** Whether a piece between dollars is TeX that the reader keeps as it is; two prices are none. */
function isMath(part: string): boolean {
  return /^\$[^$]*(?:\\[A-Za-z]|[_^])[^$]*\$$/.test(part) && mathToText(part.slice(1, -1)) === undefined;
}

/**
 * Puts braces around words that must keep their capitals when a style writes titles in sentence case: in a title
 * set in title case, words with a capital after their first letter; in one set in sentence case, every capital word
 * but the first.
 */
export function protectCapitals(latex: string): string {
  const words = (latex.match(/\p{L}{4,}/gu) ?? []).slice(1);
  // Too few words to tell: what the author wrote is kept.
  const titleCase = words.length > 2 && words.filter((w) => /^\p{Lu}/u.test(w)).length > words.length / 2;
  return latex.replace(
    /(^|[\s(“‘:–—-])(?!\\)(\p{L}[\p{L}\p{N}'’.]*)/gu,
    (whole, before: string, word: string, at: number) => {
      const rest = titleCase || (at === 0 && before === '') ? word.slice(1) : word;
      return /\p{Lu}/u.test(rest) ? `${before}{${word}}` : whole;
    },
  );
}
