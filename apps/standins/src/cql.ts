/**
 * Questions in CQL 1.2 (Contextual Query Language, as SRU has it), as far as catalogues of this sort answer it: words and
 * phrases in an index, joined by and, or, not, with brackets.
 */
export type Cql =
  | { is: 'term'; index: string; words: string; exact: boolean; relation: string }
  | { is: 'and' | 'or' | 'not'; left: Cql; right: Cql };

export class CqlError extends Error {}

const TOKEN = /\s*(?:("(?:[^"\\]|\\.)*")|([()])|(<>|<=|>=|[=<>])|([^\s()=<>"]+))/gy;

export function parseCql(text: string): Cql {
  const tokens: string[] = [];
  TOKEN.lastIndex = 0;
  for (let m; TOKEN.lastIndex < text.trimEnd().length;) {
    m = TOKEN.exec(text);
    if (!m) throw new CqlError('cannot be read');
    tokens.push(m[1] ?? m[2] ?? m[3] ?? m[4]!);
  }
  let at = 0;
  const isBoolean = (t: string | undefined): boolean => /^(?:and|or|not|prox)$/i.test(t ?? '');

  function clause(): Cql {
    const token = tokens[at++];
    if (token === undefined) throw new CqlError('ends too early');
    if (token === '(') {
      const inner = query();
      if (tokens[at++] !== ')') throw new CqlError('a bracket is not closed');
      return inner;
    }
    const relation = tokens[at];
    if (
      relation &&
      /^(?:=|<=|>=|<|>|<>|==|any|all|exact|adj)$/i.test(relation) &&
      tokens[at + 1] !== undefined &&
      !isBoolean(relation)
    ) {
      at += 1;
      return term(token.toLowerCase(), tokens[at++]!, relation.toLowerCase());
    }
    return term('cql.serverchoice', token, '=');
  }
  const term = (index: string, raw: string, relation: string): Cql => {
    const exact = raw.startsWith('"');
    const words = exact ? raw.slice(1, -1).replace(/\\(.)/g, '$1') : raw;
    return {
      is: 'term',
      index: index.replace(/^.*\./, ''),
      words,
      exact: exact && relation !== 'any' && relation !== 'all',
      relation,
    };
  };
  function query(): Cql {
    let left = clause();
    for (let op = tokens[at]; op !== undefined && op !== ')'; op = tokens[at]) {
      if (!isBoolean(op)) {
        // Words beside each other, as people type them: all of them.
        left = { is: 'and', left, right: clause() };
        continue;
      }
      at += 1;
      left = { is: op.toLowerCase() === 'prox' ? 'and' : (op.toLowerCase() as 'and'), left, right: clause() };
    }
    return left;
  }
  const whole = query();
  if (at < tokens.length) throw new CqlError('a bracket is closed that was not opened');
  return whole;
}
