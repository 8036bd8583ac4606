/**
 * The commands a file defines for itself: `\newcommand` and `\def` in its @preamble. Conditions around them are not
 * followed; of two definitions the first stands.
 */
export interface Macro {
  /** How many arguments it takes. */
  arity: number;
  /** What the first argument is where it may be left out, in brackets. */
  optional?: string;
  body: string;
}

export type Macros = Map<string, Macro>;

const BEGINS =
  /\\(?:(?:re|provide)?newcommand|DeclareRobustCommand)\*?\s*\{?\s*\\([A-Za-z]+)\s*\}?\s*(?:\[(\d)\])?\s*(?:\[([^[\]]*)\])?\s*(?=\{)|\\[gex]?def\s*\\([A-Za-z]+)\s*((?:#\d\s*)*)(?=\{)|\\let\s*\\([A-Za-z]+)\s*=?\s*(\\[A-Za-z]+)/g;

/** Adds what a preamble defines. */
export function readMacros(preamble: string, macros: Macros): void {
  const begins = new RegExp(BEGINS);
  for (let m = begins.exec(preamble); m; m = begins.exec(preamble)) {
    const [, newName, arity, optional, defName, parameters, letName, letBody] = m;
    const name = newName ?? defName ?? letName!;
    let macro: Macro;
    if (letBody) macro = macros.get(letBody.slice(1)) ?? { arity: 0, body: letBody };
    else {
      const body = braced(preamble, begins.lastIndex);
      if (body === undefined) continue;
      begins.lastIndex += body.length + 2;
      macro = {
        arity: arity ? Number(arity) : (parameters?.match(/#/g)?.length ?? 0),
        body,
        ...(optional === undefined ? {} : { optional }),
      };
    }
    if (!macros.has(name)) macros.set(name, macro);
  }
}

/** What stands in the braces that open at `at`, or nothing when they do not close. */
export function braced(text: string, at: number): string | undefined {
  let depth = 0;
  for (let i = at; i < text.length; i += 1) {
    const c = text.charCodeAt(i);
    if (c === 92) i += 1;
    else if (c === 123) depth += 1;
    else if (c === 125) {
      depth -= 1;
      if (depth === 0) return text.slice(at + 1, i);
    }
  }
  return undefined;
}

/** The body with its arguments put in. */
export function expand(macro: Macro, args: string[]): string {
  return macro.body.replace(/##|#(\d)/g, (whole, n?: string) => (n ? (args[Number(n) - 1] ?? '') : whole));
}
