/** The text of a note as Markdown (CommonMark, with the tables, strikethrough and footnotes of GFM). */
import type { BlockContent, PhrasingContent, RootContent, TableRow } from 'mdast';
import { gfmToMarkdown } from 'mdast-util-gfm';
import { toMarkdown } from 'mdast-util-to-markdown';
import { placeWritten } from '../page-numbers/index.ts';
import { HOW_NAMES, HOWS, isInline, linksIn, originOf, type DocMark, type DocNode, type Link } from '../notes/index.ts';

export interface MarkdownWay {
  /** The address of a link; undefined where its target is not among the files. */
  addressOf: (link: Link) => string | undefined;
  /** How the source of a quotation is named: “Okonjo 2014”. */
  sourceOf: (source: string) => string;
}

/** A quotation becomes a block quote, with a footnote that names its source and page. */
export function noteToMarkdown(doc: DocNode, way: MarkdownWay): string {
  const notes: RootContent[] = [];
  const children = blocks(doc, { ...way, footnote: (says) => note(notes, says) });
  return toMarkdown(
    { type: 'root', children: [...children, ...notes] as RootContent[] },
    { extensions: [gfmToMarkdown()], bullet: '-', fences: true, rule: '-', resourceLink: true },
  );
}

interface Way extends MarkdownWay {
  footnote: (says: string) => PhrasingContent;
}

function note(notes: RootContent[], says: string): PhrasingContent {
  const identifier = String(notes.length + 1);
  notes.push({
    type: 'footnoteDefinition',
    identifier,
    children: [{ type: 'paragraph', children: [{ type: 'text', value: says }] }],
  });
  return { type: 'footnoteReference', identifier };
}

const blocks = (node: DocNode, way: Way): BlockContent[] =>
  (node.content ?? []).flatMap((child) => block(child, way) as BlockContent[]);

function block(node: DocNode, way: Way): RootContent[] {
  const { type, attrs = {} } = node;
  switch (type) {
    case 'heading': {
      const depth = Math.min(6, Math.max(1, Number(attrs.level) || 1)) as 1 | 2 | 3 | 4 | 5 | 6;
      return [{ type: 'heading', depth, children: inline(node, way) }];
    }
    case 'bulletList':
    case 'orderedList': {
      const ordered = type === 'orderedList';
      const children = (node.content ?? []).map((item) => ({ type: 'listItem' as const, spread: false, children: blocks(item, way) })); // prettier-ignore
      return [{ type: 'list', ordered, spread: false, start: ordered ? Number(attrs.start) || 1 : null, children }];
    }
    case 'blockquote':
      return [{ type: 'blockquote', children: blocks(node, way) }];
    case 'quotation': {
      const origin = originOf(node);
      const says = origin && [way.sourceOf(origin.source), origin.cited && placeWritten(origin.cited)].filter(Boolean).join(', '); // prettier-ignore
      const children = inline(node, way);
      return [{ type: 'blockquote', children: [{ type: 'paragraph', children: says ? [...children, way.footnote(says)] : children }] }]; // prettier-ignore
    }
    case 'codeBlock':
      return [{ type: 'code', lang: typeof attrs.language === 'string' ? attrs.language : null, value: (node.content ?? []).map((c) => c.text ?? '').join('') }]; // prettier-ignore
    case 'horizontalRule':
      return [{ type: 'thematicBreak' }];
    case 'table':
      return [{ type: 'table', children: (node.content ?? []).map((row) => tableRow(row, way)) }];
    case 'paragraph':
      return node.content?.length ? [{ type: 'paragraph', children: inline(node, way) }] : [];
    default:
      return isInline(node) ? [{ type: 'paragraph', children: inlineNode(node, way) }] : blocks(node, way);
  }
}

/** A cell of a table is one line of Markdown: its blocks stand after one another. */
const tableRow = (row: DocNode, way: Way): TableRow => ({
  type: 'tableRow',
  children: (row.content ?? []).map((cell) => ({
    type: 'tableCell' as const,
    children: (cell.content ?? []).flatMap((part, i) => [
      ...(i ? [{ type: 'text' as const, value: ' ' }] : []),
      ...inline(part, way),
    ]),
  })),
});

const inline = (node: DocNode, way: Way): PhrasingContent[] =>
  (node.content ?? []).flatMap((child) => (isInline(child) ? inlineNode(child, way) : inline(child, way)));

function inlineNode(node: DocNode, way: Way): PhrasingContent[] {
  if (node.type === 'hardBreak') return [{ type: 'break' }];
  if (node.type === 'reference') {
    const [link] = linksIn(node);
    const label: PhrasingContent[] = [{ type: 'text', value: link?.label ?? '' }];
    const url = link && way.addressOf(link);
    const title = link?.how && HOWS.includes(link.how) ? HOW_NAMES[link.how] : null;
    return url ? [{ type: 'link', url, title, children: label }] : label;
  }
  return [(node.marks ?? []).reduce(marked, plain(node))];
}

const plain = ({ text = '', marks = [] }: DocNode): PhrasingContent =>
  marks.some((m) => m.type === 'code') ? { type: 'inlineCode', value: text } : { type: 'text', value: text };

function marked(child: PhrasingContent, { type, attrs = {} }: DocMark): PhrasingContent {
  if (type === 'bold') return { type: 'strong', children: [child] };
  if (type === 'italic') return { type: 'emphasis', children: [child] };
  if (type === 'strike') return { type: 'delete', children: [child] };
  if (type === 'link' && typeof attrs.href === 'string') return { type: 'link', url: attrs.href, children: [child] };
  return child;
}
