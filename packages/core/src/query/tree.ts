/** A query as a tree. It knows nothing of SQL; the server turns it into conditions, the page into chips. */
import type { QueryField } from './fields.ts';

export type Node =
  | { is: 'all' }
  | { is: 'and' | 'or'; parts: Node[] }
  | { is: 'not'; part: Node }
  /** `typed`: the beginning of a word that may still go on. */
  | { is: 'word'; text: string; prefix?: boolean; typed?: boolean }
  | { is: 'phrase'; text: string }
  | { is: 'field'; field: QueryField; text: string; phrase: boolean };

/** A range of years; either end may be open. */
export interface YearRange {
  from?: number;
  to?: number;
}

/** Reads "1980", "1980-2026", "1980..2026", "-1900", "1980-", "<1900", ">=1980"; undefined when it is no range. */
export function parseYears(text: string): YearRange | undefined {
  const t = text.trim().replace(/[–—]|\.\./g, '-');
  const compare = /^(<=?|>=?)\s*(\d{1,4})$/.exec(t);
  if (compare) {
    const year = Number(compare[2]);
    const edge = compare[1]!.includes('=') ? 0 : 1;
    return compare[1]!.startsWith('<') ? { to: year - edge } : { from: year + edge };
  }
  const range = /^(\d{1,4})?\s*(-)?\s*(\d{1,4})?$/.exec(t);
  if (!range || (!range[1] && !range[3])) return undefined;
  const [, from, dash, to] = range;
  if (!dash) return { from: Number(from ?? to), to: Number(from ?? to) };
  const out = { ...(from ? { from: Number(from) } : {}), ...(to ? { to: Number(to) } : {}) };
  return out.from !== undefined && out.to !== undefined && out.from > out.to ? { from: out.to, to: out.from } : out;
}

/** The tree as text that reads back to the same tree. */
export function printQuery(node: Node): string {
  const inner = (n: Node): string =>
    n.is === 'or' || n.is === 'and' || n.is === 'not' ? `(${printQuery(n)})` : printQuery(n);
  switch (node.is) {
    case 'all':
      return '';
    case 'and':
      return node.parts.map((p) => (p.is === 'or' || p.is === 'and' ? inner(p) : printQuery(p))).join(' ');
    case 'or':
      return node.parts.map(inner).join(' or ');
    case 'not':
      return `-${inner(node.part)}`;
    case 'word':
      return node.text + (node.prefix ? '*' : '');
    case 'phrase':
      return `"${node.text}"`;
    case 'field':
      return `${node.field}:${node.phrase || /[\s()"]/.test(node.text) || !node.text ? `"${node.text}"` : node.text}`;
  }
}
