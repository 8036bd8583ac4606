/** The whole question as one tree: what stands as chips, and the words. */
import type { Ask } from '@pandecta/contract';
import { join, parseQuery, type FieldNode, type Node, type QueryField } from '@pandecta/core/query';
import { facetParts } from '../ask.ts';

/** What a facet is asked for by in the query language. */
const FIELD_OF: Record<string, QueryField> = {
  kind: 'kind',
  tag: 'tag',
  subject: 'subject',
  label: 'label',
  rating: 'rating',
  reading: 'state',
  person: 'person',
  container: 'container',
  publisher: 'publisher',
  court: 'court',
  jurisdiction: 'jurisdiction',
  language: 'language',
  sense: 'sense',
  file: 'file',
  finding: 'finding',
  until: 'until',
  by: 'by',
  batch: 'from',
  in: 'in',
};
/** Values of these a source has several of, so that two are asked for at once. */
export const MANY_VALUED = new Set(['tag', 'subject', 'label', 'person', 'sense', 'finding', 'in']);
const FILE_WORDS: Record<string, string> = { 'image only': 'image' };

/** What a person calls a facet's value; the path of a collection. */
export type NameOf = (type: string, key: string) => string | undefined;

function nodeOf(facet: string, nameOf: NameOf): FieldNode | undefined {
  const [type, key] = facetParts(facet);
  const field = (name: QueryField, text: string): FieldNode => ({ is: 'field', field: name, text, phrase: true });
  if (type === 'star') return field('is', 'starred');
  if (type === 'file') return field('file', FILE_WORDS[key] ?? key);
  if (type === 'rating' || type === 'finding' || type === 'reading')
    return { ...field(FIELD_OF[type]!, key), phrase: /\s/.test(key) };
  const name = FIELD_OF[type];
  return name && field(name, nameOf(type, key) ?? key);
}

export function wholeTree(ask: Ask, nameOf: NameOf): Node {
  const parts: Node[] = [];
  if (ask.collection)
    parts.push({
      is: 'field',
      field: ask.below === false ? 'filed' : 'in',
      text: nameOf('in', ask.collection) ?? ask.collection,
      phrase: true,
    });
  if (ask.scope === 'loose') parts.push({ is: 'field', field: 'is', text: 'loose', phrase: false });
  const any = new Map<string, Node[]>();
  for (const facet of ask.include ?? []) {
    const node = nodeOf(facet, nameOf);
    const [type] = facetParts(facet);
    if (node && MANY_VALUED.has(type)) parts.push(node);
    else if (node) any.set(type, [...(any.get(type) ?? []), node]);
  }
  for (const nodes of any.values()) parts.push(join('or', nodes));
  if (ask.yearFrom !== undefined || ask.yearTo !== undefined) {
    const [from, to] = [ask.yearFrom ?? '', ask.yearTo ?? ''];
    parts.push({ is: 'field', field: 'year', text: from === to ? String(from) : `${from}-${to}`, phrase: false });
  }
  for (const facet of ask.exclude ?? []) {
    const node = nodeOf(facet, nameOf);
    if (node) parts.push({ is: 'not', part: node });
  }
  const { tree } = parseQuery(ask.q ?? '');
  return join('and', tree.is === 'all' ? parts : [...parts, tree]);
}
