/** Parts of a note become notes of their own, and notes become one: nothing of the text and no way back is lost. */
import { isInline, lengthOf, plainText, type DocNode } from './document.ts';

/** What is not cut through: it goes to the side on which it begins to be wanted. */
const WHOLE = new Set(['table', 'horizontalRule']);

type Halves = [left: DocNode | null, right: DocNode | null];

/** Never between the halves of a character. */
const isLow = (text: string, at: number): boolean => /[\uDC00-\uDFFF]/.test(text[at] ?? '');

function cutNode(node: DocNode, at: number): Halves {
  const length = lengthOf(node);
  if (at <= 0 && length) return [null, node];
  if (at >= length) return [node, null];
  if (node.type === 'text') {
    const text = node.text!;
    const place = isLow(text, at) ? at - 1 : at;
    if (!place) return [null, node];
    return [
      { ...node, text: text.slice(0, place) },
      { ...node, text: text.slice(place) },
    ];
  }
  if (WHOLE.has(node.type) || isInline(node)) return [null, node];
  const [left, right] = cutList(node.content ?? [], at);
  return [left.length ? { ...node, content: left } : null, right.length ? { ...node, content: right } : null];
}

function cutList(nodes: DocNode[], at: number): [DocNode[], DocNode[]] {
  const [left, right]: [DocNode[], DocNode[]] = [[], []];
  let rest = at;
  for (const node of nodes) {
    if (right.length) {
      right.push(node);
      continue;
    }
    const length = lengthOf(node);
    const [first, second] = cutNode(node, rest);
    if (first) left.push(first);
    if (second) right.push(second);
    rest -= length;
  }
  return [left, right];
}

const docOf = (content: DocNode[]): DocNode => ({
  type: 'doc',
  content: content.length ? content : [{ type: 'paragraph' }],
});

/**
 * Cuts a text in two. A quotation that is cut through stands in both, each part with its source and page; a table is not cut.
 * @param at how many characters stand before the cut (`lengthOf`)
 */
export function splitText(doc: DocNode, at: number): { left: DocNode; right: DocNode } {
  const [left, right] = cutList(doc.content ?? [], at);
  return { left: docOf(left), right: docOf(right) };
}

/** Takes the stretch from one place to another out: what is taken, and what is left around it. */
export function takeOut(doc: DocNode, from: number, to: number): { taken: DocNode; left: DocNode } {
  const { left: before, right } = splitText(doc, from);
  // A character or a table that was not cut through moved the place.
  const { left: taken, right: after } = splitText(right, to - lengthOf(before));
  return { taken, left: isBlank(after) ? before : isBlank(before) ? after : joinTexts(before, after) };
}

const isBlank = (doc: DocNode): boolean => !lengthOf(doc) && (doc.content ?? []).every((n) => n.type === 'paragraph');

/** One text after the other. @param title of the second, which stands above it as a heading; nothing where it is empty */
export function joinTexts(a: DocNode, b: DocNode, title = ''): DocNode {
  const heading: DocNode[] = title ? [{ type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: title }] }] : []; // prettier-ignore
  return docOf([...(isBlank(a) ? [] : (a.content ?? [])), ...heading, ...(isBlank(b) ? [] : (b.content ?? []))]);
}

const LONGEST_TITLE = 80;

/** A title for a note that has none: the first line of its text, cut at a word. */
export function titleFrom(doc: DocNode): string {
  const line = plainText(doc).split('\n').find((l) => l.trim())?.trim() ?? ''; // prettier-ignore
  if (line.length <= LONGEST_TITLE) return line;
  return `${line.slice(0, LONGEST_TITLE).replace(/\s+\S*$/, '')}…`;
}
