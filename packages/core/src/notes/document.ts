/**
 * The text of a note as a tree of nodes: paragraphs, headings, lists, tables and the like, as editors of rich text keep it
 * (the JSON of ProseMirror's documents). Two nodes are ours: a quotation, a block that knows its source and page, and a
 * reference, a link within the text to a note, a source or a heading.
 */
import { isObject } from '../source/record.ts';
import { DEEPEST, depthOf } from '../text/index.ts';

export interface DocMark {
  type: string;
  attrs?: Record<string, unknown>;
}

export interface DocNode {
  type: string;
  attrs?: Record<string, unknown>;
  content?: DocNode[];
  marks?: DocMark[];
  /** Of a node of the type `text`. */
  text?: string;
}

/** Where a quotation comes from, or a note: the source, and as far as known its document, page and mark. */
export interface Origin {
  source: string;
  file: string | null;
  /** Counted from 1. */
  page: number | null;
  /** The page as it is cited, as it was when it was taken: “214”, “12r”, “para 33”; empty where there is none. */
  cited: string;
  mark: string | null;
}

/** How what is linked stands to the note: nothing where it is only named. */
export const HOWS = ['agrees', 'disagrees', 'follows', 'asks'] as const;
export type How = (typeof HOWS)[number];
export const HOW_NAMES: Record<How, string> = {
  agrees: 'agrees with',
  disagrees: 'disagrees with',
  follows: 'follows from',
  asks: 'asks about',
};

export const LINKED = ['note', 'source', 'heading'] as const;
export type Linked = (typeof LINKED)[number];

/** A link in the text of a note. */
export interface Link {
  to: Linked;
  id: string;
  label: string;
  how: How | null;
}

/** Bytes of its JSON: a note is no book. */
export const LARGEST_TEXT = 2 * 1024 * 1024;

const BLOCKS = 'paragraph heading bulletList orderedList listItem blockquote codeBlock horizontalRule table tableRow tableHeader tableCell quotation'.split(' '); // prettier-ignore
const TYPES = new Set(['doc', 'text', 'hardBreak', 'reference', ...BLOCKS]);
const MARKS = new Set(['bold', 'italic', 'strike', 'code', 'underline', 'link']);
/** What stands for a reference where a text is counted by characters. */
const ATOM = '\uFFFC';

export const emptyText = (): DocNode => ({ type: 'doc', content: [{ type: 'paragraph' }] });
export const paragraph = (text: string): DocNode =>
  text ? { type: 'paragraph', content: [{ type: 'text', text }] } : { type: 'paragraph' };
export const quotation = (origin: Origin, words: string): DocNode => ({
  type: 'quotation',
  attrs: { ...origin },
  ...(words && { content: [{ type: 'text', text: words }] }),
});

/** What is wrong with a value that is to be the text of a note, in a sentence; empty where nothing is. */
export function faultOf(value: unknown): string {
  if (!isObject(value) || value.type !== 'doc') return 'the text of a note is a document';
  const written = JSON.stringify(value);
  if (written.length > LARGEST_TEXT) return 'the text of the note is too long';
  if (depthOf(written) > DEEPEST) return 'the text of the note is nested too deep';
  return faultIn(value);
}

function faultIn(node: unknown): string {
  if (!isObject(node) || typeof node.type !== 'string') return 'a part of the text is no node';
  if (!TYPES.has(node.type)) return `the text of a note has no “${node.type.slice(0, 40)}”`;
  if (node.type === 'text') {
    if (typeof node.text !== 'string' || !node.text) return 'a piece of text has no characters';
  } else if (node.text !== undefined) return `“${node.type}” has no text of its own`;
  if (node.attrs !== undefined && !isObject(node.attrs)) return 'the attributes of a node are no object';
  const marks = node.marks ?? [];
  if (!Array.isArray(marks) || !marks.every((m) => isObject(m) && MARKS.has(String(m.type))))
    return 'a piece of text has an unknown look';
  const content = node.content ?? [];
  if (!Array.isArray(content)) return 'the content of a node is no list';
  for (const child of content) {
    const fault = faultIn(child);
    if (fault) return fault;
  }
  return '';
}

/** All nodes, each before what is in it. */
export function nodesIn(node: DocNode, out: DocNode[] = []): DocNode[] {
  out.push(node);
  for (const child of node.content ?? []) nodesIn(child, out);
  return out;
}

const isId = (v: unknown): v is string => typeof v === 'string' && /^[0-9a-f-]{36}$/i.test(v);

/** Where a quotation comes from; nothing where its source is not known. */
export function originOf({ attrs = {} }: DocNode): Origin | null {
  if (!isId(attrs.source)) return null;
  return {
    source: attrs.source,
    file: isId(attrs.file) ? attrs.file : null,
    page: Number.isInteger(attrs.page) ? (attrs.page as number) : null,
    cited: typeof attrs.cited === 'string' ? attrs.cited : '',
    mark: isId(attrs.mark) ? attrs.mark : null,
  };
}

export interface Quotation {
  words: string;
  origin: Origin | null;
}

/** The quotations in the order they stand there. */
export const quotationsIn = (doc: DocNode): Quotation[] =>
  nodesIn(doc).flatMap((n) => (n.type === 'quotation' ? [{ words: plainText(n), origin: originOf(n) }] : []));

/** What is linked in the text, each as often as it stands there. */
export const linksIn = (doc: DocNode): Link[] =>
  nodesIn(doc).flatMap(({ type, attrs = {} }): Link[] => {
    const to = LINKED.find((kind) => kind === attrs.to);
    if (type !== 'reference' || !to || !isId(attrs.id)) return [];
    const how = HOWS.find((h) => h === attrs.how) ?? null;
    return [{ to, id: attrs.id, label: typeof attrs.label === 'string' ? attrs.label : '', how }];
  });

/** The sources it quotes or links, each once. */
export const sourcesIn = (doc: DocNode): string[] => [
  ...new Set([
    ...quotationsIn(doc).flatMap((q) => q.origin?.source ?? []),
    ...linksIn(doc).flatMap((l) => (l.to === 'source' ? l.id : [])),
  ]),
];

const INLINE = new Set(['text', 'hardBreak', 'reference']);
export const isInline = ({ type }: DocNode): boolean => INLINE.has(type);

/** The text without its form: blocks on lines of their own, references by their labels. */
export function plainText(node: DocNode): string {
  if (node.type === 'text') return node.text ?? '';
  if (node.type === 'hardBreak') return '\n';
  if (node.type === 'reference') return typeof node.attrs?.label === 'string' ? node.attrs.label : '';
  const parts = node.content ?? [];
  let out = '';
  parts.forEach((child, i) => {
    const text = plainText(child);
    if (i > 0 && !isInline(child) && out && !out.endsWith('\n')) out += '\n';
    out += text;
  });
  return out;
}

/** How many characters a node is long: a reference and a break count as one. */
export function lengthOf(node: DocNode): number {
  if (node.type === 'text') return node.text!.length;
  if (isInline(node)) return ATOM.length;
  return (node.content ?? []).reduce((n, child) => n + lengthOf(child), 0);
}
