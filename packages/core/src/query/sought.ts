/** What a query would light in a text: every word and phrase that is asked for and not excluded. */
import { fold, stemsBegunBy, tokens, type Sought } from '../words/index.ts';
import { isTextField, type TextField } from './fields.ts';
import type { Node } from './tree.ts';

/** @param fields which field conditions light words here; words without a field always do. */
export function soughtIn(tree: Node, fields: readonly TextField[] = []): Sought {
  const out: Sought = { stems: new Set(), prefixes: [], phrases: [] };
  const phrase = (text: string): void => {
    const stems = tokens(text).map((t) => t.stem);
    if (stems.length === 1) out.stems.add(stems[0]!);
    else if (stems.length) out.phrases.push(stems);
  };
  const visit = (node: Node): void => {
    if (node.is === 'and' || node.is === 'or') node.parts.forEach(visit);
    else if (node.is === 'phrase') phrase(node.text);
    else if (node.is === 'near') [node.left, node.right].forEach(visit);
    else if (node.is === 'word') {
      const parts = tokens(node.text);
      for (const spelt of node.spelt ?? []) out.stems.add(spelt);
      parts.forEach((t, i) => {
        out.stems.add(t.stem);
        const end = fold(node.text.slice(t.start, t.end));
        // One letter that is still being typed would light half a page.
        if (node.prefix && i === parts.length - 1 && (!node.typed || end.length > 1)) {
          out.prefixes.push(end);
          for (const s of stemsBegunBy(end)) out.stems.add(s);
        }
      });
    } else if (node.is === 'field' && isTextField(node.field) && fields.includes(node.field)) {
      if (node.phrase) phrase(node.text);
      else for (const t of tokens(node.text)) out.stems.add(t.stem);
    }
  };
  visit(tree);
  return out;
}

/** True when there is nothing to light. */
export const nothingSought = (s: Sought): boolean => !s.stems.size && !s.prefixes.length && !s.phrases.length;

/** What of a query can be asked of the pages of one document: words and phrases, those of "page:" among them. */
export function onPages(tree: Node): Node {
  if (tree.is === 'word' || tree.is === 'phrase' || tree.is === 'near') return tree;
  if (tree.is === 'field' && tree.field === 'page') return { is: tree.phrase ? 'phrase' : 'word', text: tree.text };
  if (tree.is === 'not') {
    const part = onPages(tree.part);
    return part.is === 'all' ? part : { is: 'not', part };
  }
  if (tree.is !== 'and' && tree.is !== 'or') return { is: 'all' };
  const parts = tree.parts.map(onPages).filter((p) => p.is !== 'all');
  return parts.length > 1 ? { is: tree.is, parts } : (parts[0] ?? { is: 'all' });
}

/** The last plain word of a query, read as the beginning of a word: results as one types. */
export function asTyped(tree: Node): Node {
  if (tree.is === 'word') return tree.prefix || tree.close ? tree : { ...tree, prefix: true, typed: true };
  if (tree.is === 'and') return { ...tree, parts: [...tree.parts.slice(0, -1), asTyped(tree.parts.at(-1)!)] };
  return tree;
}
