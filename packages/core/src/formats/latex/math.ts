/**
 * Mathematics of titles and abstracts to plain text with the inline tags CSL knows. Only what reads the same on one
 * line is put so: letters, numbers, signs, raised and lowered parts. Anything else stays TeX between its dollars.
 *
 * Source of the commands: The LaTeX Companion, 2nd edition, chapter 8 (from memory).
 */
const SIGNS: Record<string, string> = {
  alpha: 'α',
  beta: 'β',
  gamma: 'γ',
  delta: 'δ',
  epsilon: 'ϵ',
  varepsilon: 'ε',
  zeta: 'ζ',
  eta: 'η',
  theta: 'θ',
  iota: 'ι',
  kappa: 'κ',
  lambda: 'λ',
  mu: 'μ',
  nu: 'ν',
  xi: 'ξ',
  pi: 'π',
  rho: 'ρ',
  sigma: 'σ',
  tau: 'τ',
  upsilon: 'υ',
  phi: 'ϕ',
  varphi: 'φ',
  chi: 'χ',
  psi: 'ψ',
  omega: 'ω',
  Gamma: 'Γ',
  Delta: 'Δ',
  Theta: 'Θ',
  Lambda: 'Λ',
  Xi: 'Ξ',
  Pi: 'Π',
  Sigma: 'Σ',
  Phi: 'Φ',
  Psi: 'Ψ',
  Omega: 'Ω',
  times: '×',
  cdot: '·',
  pm: '±',
  mp: '∓',
  div: '÷',
  le: '≤',
  leq: '≤',
  ge: '≥',
  geq: '≥',
  ne: '≠',
  neq: '≠',
  approx: '≈',
  sim: '∼',
  simeq: '≃',
  equiv: '≡',
  propto: '∝',
  infty: '∞',
  partial: '∂',
  nabla: '∇',
  to: '→',
  rightarrow: '→',
  leftarrow: '←',
  leftrightarrow: '↔',
  Rightarrow: '⇒',
  in: '∈',
  subset: '⊂',
  cup: '∪',
  cap: '∩',
  circ: '°',
  degree: '°',
  prime: '′',
  ast: '∗',
  star: '⋆',
  bullet: '•',
  ldots: '…',
  cdots: '⋯',
  dots: '…',
  ell: 'ℓ',
  hbar: 'ℏ',
  lt: '<',
  gt: '>',
  quad: ' ',
  ' ': ' ',
  ',': '\u2009',
  '%': '%',
  '&': '&',
  '#': '#',
  _: '_',
};

const UPRIGHT = /^(?:mathrm|text|textrm|mathsf|operatorname|rm|mbox)$/;
const TOKEN =
  /\\([A-Za-z]+) ?|\\([ ,%&#_])|([A-Za-z]+)|([0-9]+(?:[.,][0-9]+)*)|(\s+)|([-+=<>()[\],.;:!|/*'"–×·°])|([_^{}])/y;

/** The text of a formula given without its dollars, or nothing when it does not read on one line. */
export function mathToText(tex: string): string | undefined {
  // Two prices in a sentence are no formula.
  if (/[A-Za-z]{3}/.test(tex) && !/[\\_^=]/.test(tex)) return undefined;
  const reader = new Formula(tex);
  const text = reader.sequence(false);
  if (text === undefined || !reader.done) return undefined;
  return text.replace(/<\/(i|sup|sub)><\1>/g, '').trim() || undefined;
}

/** A formula nested deeper does not read on one line. */
const DEEPEST_FORMULA = 20;

class Formula {
  private i = 0;
  private nested = 0;

  constructor(private readonly tex: string) {}

  get done(): boolean {
    return this.i === this.tex.length;
  }

  /** What stands up to a closing brace or the end; nothing at the first thing that is not known. */
  sequence(upright: boolean): string | undefined {
    let out = '';
    while (!this.done && this.tex[this.i] !== '}') {
      const piece = this.piece(upright);
      if (piece === undefined) return undefined;
      out += piece;
    }
    return out;
  }

  private piece(upright: boolean): string | undefined {
    TOKEN.lastIndex = this.i;
    const m = TOKEN.exec(this.tex);
    if (!m) return undefined;
    const at = this.i;
    this.i = TOKEN.lastIndex;
    const [, command, escaped, letters, digits, space, sign, structure] = m;
    if (escaped) return SIGNS[escaped];
    if (command) return UPRIGHT.test(command) ? this.group(true) : SIGNS[command];
    if (letters) return upright ? letters : `<i>${letters}</i>`;
    if (space) return ' ';
    if (sign) return sign === '-' ? '−' : sign;
    if (digits) return digits;
    if (structure === '{') {
      this.i = at;
      return this.group(upright);
    }
    const inside = this.tex[this.i] === '{' ? this.group(upright) : this.single(upright);
    if (!inside?.trim()) return undefined;
    if (structure === '^' && /^[°′∗]+$/.test(inside)) return inside;
    const tag = structure === '^' ? 'sup' : 'sub';
    return `<${tag}>${inside}</${tag}>`;
  }

  private group(upright: boolean): string | undefined {
    if (this.tex[this.i] !== '{' || this.nested >= DEEPEST_FORMULA) return undefined;
    this.i += 1;
    this.nested += 1;
    const inside = this.sequence(upright);
    this.nested -= 1;
    if (inside === undefined || this.tex[this.i] !== '}') return undefined;
    this.i += 1;
    return inside;
  }

  /** What is raised or lowered without braces: one letter, one digit or one command. */
  private single(upright: boolean): string | undefined {
    const c = this.tex[this.i];
    if (c === undefined || c === '}' || c === ' ') return undefined;
    if (c === '\\') return this.piece(upright);
    this.i += 1;
    if (/[A-Za-z]/.test(c)) return upright ? c : `<i>${c}</i>`;
    return /[0-9+*']/.test(c) ? c : c === '-' ? '−' : undefined;
  }
}
