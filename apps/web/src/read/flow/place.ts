/** Where a quotation stands in a text that flows: its place depends on the width it is set in. */
import { findQuote, type Quote, type Rect } from '@pandecta/core/marks';

/** The text below an element, and its nodes, but for what stands above it and is none of it. */
function textUnder(root: Element): { text: string; nodes: { node: Text; start: number }[] } {
  const nodes: { node: Text; start: number }[] = [];
  let text = '';
  const walk = document.createTreeWalker(root, NodeFilter.SHOW_TEXT);
  while (walk.nextNode()) {
    const node = walk.currentNode as Text;
    if (node.parentElement?.closest('p.from')) continue;
    nodes.push({ node, start: text.length });
    text += node.data;
  }
  return { text, nodes };
}

/** The range of each quotation; undefined where its words are not found. */
export function rangesOf(root: Element, quotes: readonly Quote[]): (Range | undefined)[] {
  const { text, nodes } = textUnder(root);
  const at = (offset: number): { node: Text; offset: number } | undefined => {
    const found = nodes.findLast((n) => n.start <= offset);
    return found && { node: found.node, offset: Math.min(offset - found.start, found.node.length) };
  };
  return quotes.map((quote) => {
    const span = findQuote(text, quote);
    const [from, to] = span ? [at(span.start), at(span.end - 1)] : [];
    if (!from || !to) return undefined;
    const range = document.createRange();
    range.setStart(from.node, from.offset);
    range.setEnd(to.node, to.offset + 1);
    return range;
  });
}

/** The lines of a range, in pixels from the upper left corner of an element. */
export function linesOf(range: Range, root: Element): Rect[] {
  const box = root.getBoundingClientRect();
  const out: Rect[] = [];
  for (const r of range.getClientRects()) {
    if (r.width < 1 || r.height < 1) continue;
    const rect = { x0: r.left - box.left, y0: r.top - box.top, x1: r.right - box.left, y1: r.bottom - box.top };
    const line = out.find((o) => Math.min(o.y1, rect.y1) - Math.max(o.y0, rect.y0) > (rect.y1 - rect.y0) * 0.6);
    if (line) {
      line.x0 = Math.min(line.x0, rect.x0);
      line.x1 = Math.max(line.x1, rect.x1);
      line.y0 = Math.min(line.y0, rect.y0);
      line.y1 = Math.max(line.y1, rect.y1);
    } else out.push(rect);
  }
  return out;
}
