/** A query as a tree. It knows nothing of SQL; the server turns it into conditions, the page into chips and rows. */
import type { QueryField } from './fields.ts';

export interface WordNode {
  is: 'word';
  text: string;
  /** The beginning of a word. */
  prefix?: boolean;
  /** One that may still go on. */
  typed?: boolean;
  /** Other spellings of it as well. */
  close?: boolean;
  /** Those there are, as the index has them: known where it was looked for. */
  spelt?: string[];
}
export interface PhraseNode {
  is: 'phrase';
  text: string;
}
/** Two things within so many words of each other, in one field or on one page; in this order, or in any. */
export interface NearNode {
  is: 'near';
  left: WordNode | PhraseNode;
  right: WordNode | PhraseNode;
  within: number;
  ordered: boolean;
}
export interface FieldNode {
  is: 'field';
  field: QueryField;
  text: string;
  phrase: boolean;
}

export type Node =
  | { is: 'all' }
  | { is: 'and' | 'or'; parts: Node[] }
  | { is: 'not'; part: Node }
  | WordNode
  | PhraseNode
  | NearNode
  | FieldNode;

/** Words may stand no further apart than this in a `near`. */
export const FURTHEST = 30;

/** All the parts, or any of them, as one: what is of the same sort within it is part of it. */
export function join(is: 'and' | 'or', parts: Node[]): Node {
  if (!parts.length) return { is: 'all' };
  if (parts.length === 1) return parts[0]!;
  return { is, parts: parts.flatMap((p) => (p.is === is ? p.parts : [p])) };
}

/** The tree as text that reads back to the same tree. */
export function printQuery(node: Node): string {
  const inner = (n: Node): string =>
    n.is === 'or' || n.is === 'and' || n.is === 'not' || n.is === 'near' ? `(${printQuery(n)})` : printQuery(n);
  switch (node.is) {
    case 'all':
      return '';
    case 'and':
      return node.parts
        .map((p) => (p.is === 'or' || p.is === 'and' || p.is === 'near' ? inner(p) : printQuery(p)))
        .join(' ');
    case 'or':
      return node.parts.map(inner).join(' or ');
    case 'not':
      return `-${inner(node.part)}`;
    case 'word':
      return node.text + (node.prefix ? '*' : node.close ? '~' : '');
    case 'phrase':
      return `"${node.text}"`;
    case 'near':
      return `${printQuery(node.left)} ${node.ordered ? 'before' : 'near'}/${node.within} ${printQuery(node.right)}`;
    case 'field':
      return `${node.field}:${node.phrase || /[\s()"]/.test(node.text) || !node.text ? `"${node.text}"` : node.text}`;
  }
}
