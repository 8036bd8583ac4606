/** The words selected on a page, as a mark knows them: a quotation with its surroundings, and rectangles in points. */
import type { Quote, Rect } from '@pandecta/core/marks';
import { quoteAt, turnBack, type Turn } from '@pandecta/core/marks';

export interface Selected {
  page: number;
  quote: Quote;
  rects: Rect[];
  /** Beside what the choice of senses appears: from the top of the first line to the end of the words, in the window. */
  at: DOMRect;
}

/** @param root where it is looked for
 * @param scale pixels a point
 * @param sizeOf a page’s size in points, upright */
export function readSelection(
  root: HTMLElement,
  scale: number,
  turn: Turn,
  sizeOf: (page: number) => { width: number; height: number },
): Selected | undefined {
  const selection = getSelection();
  if (!selection || selection.isCollapsed || !selection.rangeCount) return undefined;
  const range = selection.getRangeAt(0);
  const page = (range.startContainer.parentElement ?? undefined)?.closest<HTMLElement>('[data-page]');
  const layer = page?.querySelector<HTMLElement>('.textLayer');
  if (!page || !layer || !root.contains(page)) return undefined;
  // A selection that runs over the end of the page is cut there: a mark stands on one page.
  const cut = range.cloneRange();
  if (!layer.contains(range.endContainer)) cut.setEnd(layer, layer.childNodes.length);
  const number = Number(page.dataset.page);
  const exact = textOf(cut).trim();
  if (!exact) return undefined;
  const box = page.getBoundingClientRect();
  const boxes = [...cut.getClientRects()].filter((r) => r.width > 1 && r.height > 1);
  const rects = joinLines(
    boxes.map((r) => ({
      x0: (r.left - box.left) / scale,
      y0: (r.top - box.top) / scale,
      x1: (r.right - box.left) / scale,
      y1: (r.bottom - box.top) / scale,
    })),
  ).map((rect) => turnBack(rect, sizeOf(number), turn));
  const before = document.createRange();
  before.setStart(layer, 0);
  before.setEnd(cut.startContainer, cut.startOffset);
  const lead = textOf(before);
  const after = document.createRange();
  after.setStart(cut.endContainer, cut.endOffset);
  after.setEnd(layer, layer.childNodes.length);
  const quote = quoteAt(`${lead}${exact}${textOf(after)}`, lead.length, lead.length + exact.length);
  const last = boxes.at(-1);
  const top = boxes[0]?.top ?? box.top;
  return {
    page: number,
    quote,
    rects,
    at: new DOMRect(last?.right ?? box.left, top, 0, (last?.bottom ?? box.top) - top),
  };
}

/** The words of a stretch of a page; a line's end parts words as a space does. */
function textOf(range: Range): string {
  const copy = range.cloneContents();
  for (const end of copy.querySelectorAll('br')) end.replaceWith(' ');
  return copy.textContent!.replace(/\s+/g, ' ');
}

/** Spans of one line become one rectangle. */
function joinLines(rects: Rect[]): Rect[] {
  const out: Rect[] = [];
  for (const r of rects) {
    const line = out.find(
      (o) => Math.min(o.y1, r.y1) - Math.max(o.y0, r.y0) > (r.y1 - r.y0) * 0.6 && r.x0 < o.x1 + 24 && r.x1 > o.x0 - 24,
    );
    if (line)
      Object.assign(line, {
        x0: Math.min(line.x0, r.x0),
        x1: Math.max(line.x1, r.x1),
        y0: Math.min(line.y0, r.y0),
        y1: Math.max(line.y1, r.y1),
      });
    else out.push({ ...r });
  }
  return out;
}
