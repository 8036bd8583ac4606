/**
 * A query as rows of conditions within groups: all of these, any of these, none of these. It and the tree are two views
 * of one question: `treeOf(groupOf(tree))` is the tree, flat as the reader leaves it.
 */
import { join, printQuery, type Node, type WordNode, type PhraseNode, type NearNode, type FieldNode } from './tree.ts';
import { parseQuery } from './parse.ts';
import type { QueryField } from './fields.ts';

export interface Group {
  join: 'all' | 'any' | 'none';
  parts: Part[];
}
/** Words, in the language of the ask line; or a field with its value. */
export interface Row {
  field: QueryField | 'words';
  text: string;
  /** The value as it stands: a phrase, or a whole name; else words, or how a name begins. */
  exactly: boolean;
  /** What has none of it. */
  not: boolean;
}
export type Part = Group | Row;

export const isGroup = (part: Part): part is Group => 'join' in part;

type Leaf = WordNode | PhraseNode | NearNode | FieldNode;

/** A tree as a group: one that holds all, where it is no other. */
export function groupOf(tree: Node): Group {
  const part = partOf(tree);
  return isGroup(part) ? part : { join: 'all', parts: part.field === 'words' && !part.text ? [] : [part] };
}

function partOf(node: Node): Part {
  switch (node.is) {
    case 'all':
      return rowOf({ is: 'word', text: '' });
    case 'and':
      return allOf(node.parts);
    case 'or':
      return { join: 'any', parts: node.parts.map(partOf) };
    case 'not': {
      const { part } = node;
      if (part.is === 'or') return { join: 'none', parts: part.parts.map(partOf) };
      if (part.is === 'and' || part.is === 'not' || part.is === 'all') return { join: 'none', parts: [partOf(part)] };
      return { ...rowOf(part as Leaf), not: true };
    }
    default:
      return rowOf(node);
  }
}

/** Words that stand one after another are one row. */
function allOf(nodes: Node[]): Group {
  const parts: Part[] = [];
  let words: WordNode[] = [];
  const flush = (): void => {
    if (words.length) parts.push({ field: 'words', text: printQuery(join('and', words)), exactly: false, not: false });
    words = [];
  };
  for (const node of nodes) {
    if (node.is === 'word') words.push(node);
    else {
      flush();
      parts.push(partOf(node));
    }
  }
  flush();
  return { join: 'all', parts };
}

const rowOf = (leaf: Leaf): Row =>
  leaf.is === 'field'
    ? { field: leaf.field, text: leaf.text, exactly: leaf.phrase, not: false }
    : { field: 'words', text: printQuery(leaf), exactly: false, not: false };

/** The tree of a group; rows without a value ask for nothing. */
export function treeOf(group: Group): Node {
  const parts = group.parts.map((p) => (isGroup(p) ? treeOf(p) : nodeOf(p))).filter((p) => p.is !== 'all');
  if (group.join !== 'none') return join(group.join === 'any' ? 'or' : 'and', parts);
  const any = join('or', parts);
  return any.is === 'all' ? any : { is: 'not', part: any };
}

function nodeOf({ field, text, exactly, not }: Row): Node {
  const node: Node =
    field === 'words' || !text.trim()
      ? parseQuery(text).tree
      : { is: 'field', field, text: text.trim(), phrase: exactly };
  return not && node.is !== 'all' ? { is: 'not', part: node } : node;
}
