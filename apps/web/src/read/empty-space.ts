/**
 * Selecting with the pointer beside the lines. Where a page has no text, a browser takes the selection to the end of the
 * page; so while one selects, an element of the page's whole size stands in the text right behind (or before) the piece
 * the selection reached last. What is under the pointer then is that element, and the selection ends where it is. The
 * line level with the pointer is then chosen to its end, or to its beginning when the pointer is left of it.
 */
const layers = new Map<HTMLElement, HTMLElement>();
let pressed = false;
let before: Range | undefined;

/** Takes a layer of text under care; gives what lets it go. */
export function watchEmptySpace(layer: HTMLElement): () => void {
  const filler = document.createElement('div');
  filler.className = 'emptySpace';
  layer.append(filler);
  layers.set(layer, filler);
  if (layers.size === 1) listen();
  return () => {
    layers.delete(layer);
    filler.remove();
    if (!layers.size) listening?.abort();
  };
}

let listening: AbortController | undefined;

function listen(): void {
  listening = new AbortController();
  const { signal } = listening;
  document.addEventListener('pointerdown', () => void (pressed = true), { signal });
  document.addEventListener('pointermove', (event) => void (pressed && requestAnimationFrame(() => toPointer(event))), {
    signal,
  });
  document.addEventListener('pointerup', (event) => (toPointer(event), released()), { signal });
  window.addEventListener('blur', released, { signal });
  document.addEventListener('keyup', () => pressed || reset(), { signal });
  document.addEventListener('selectionchange', follow, { signal });
}

function released(): void {
  pressed = false;
  reset();
}

function reset(): void {
  for (const [layer, filler] of layers) {
    layer.append(filler);
    layer.classList.remove('selecting');
  }
}

/** Moves the filler of each layer the selection is in to where the selection was changed last. */
function follow(): void {
  const selection = getSelection();
  if (!pressed || !selection?.rangeCount) return;
  const range = selection.getRangeAt(0);
  for (const layer of layers.keys()) layer.classList.toggle('selecting', range.intersectsNode(layer));
  const startMoved =
    before &&
    (range.compareBoundaryPoints(Range.END_TO_END, before) === 0 ||
      range.compareBoundaryPoints(Range.START_TO_END, before) === 0);
  before = range.cloneRange();
  const piece = pieceAt(range, Boolean(startMoved));
  const layer = piece?.closest<HTMLElement>('.textLayer');
  const filler = layer && layers.get(layer);
  if (!piece || !filler || piece === filler || piece === layer) return;
  piece.parentElement!.insertBefore(filler, startMoved ? piece : piece.nextSibling);
}

/** The piece of text in which the end of the range stands that moved last. */
function pieceAt(range: Range, start: boolean): HTMLElement | null {
  let node: Node | null = start ? range.startContainer : range.endContainer;
  // At the very beginning of a piece, the one before it is the last that is chosen.
  if (!start && range.endOffset === 0) {
    while (node && !node.previousSibling) node = node.parentNode;
    node = node?.previousSibling ?? null;
  }
  return node instanceof HTMLElement ? node : (node?.parentElement ?? null);
}

/** Takes the selection to the line level with the pointer, when the pointer is on no text. */
function toPointer({ clientX: x, clientY: y }: PointerEvent): void {
  const selection = getSelection();
  const anchor = selection?.anchorNode;
  if (!selection || !anchor || selection.isCollapsed) return;
  const under = document.elementFromPoint(x, y);
  if (under?.closest('.textLayer') && !layers.has(under as HTMLElement) && under.className !== 'emptySpace') return;
  const layer = [...layers.keys()].find((l) => inside(l.getBoundingClientRect(), y));
  if (!layer || ![...layers.keys()].some((l) => l.contains(anchor))) return;
  const end = endBeside(layer, x, y);
  if (end) selection.setBaseAndExtent(anchor, selection.anchorOffset, end.node, end.offset);
}

const inside = (box: DOMRect, y: number): boolean => box.top <= y && y <= box.bottom;

/** The place in the text that stands nearest to a point beside it: on its line, else at the end of the line above. */
function endBeside(layer: HTMLElement, x: number, y: number): { node: Text; offset: number } | undefined {
  const pieces = [...layer.querySelectorAll('span')]
    .filter((s) => s.firstChild instanceof Text && s.textContent!.trim())
    .map((s) => ({ node: s.firstChild as Text, box: s.getBoundingClientRect() }));
  const level = pieces.filter((p) => inside(p.box, y));
  const away = ({ box }: (typeof pieces)[number]): number => Math.max(box.left - x, x - box.right, 0);
  const nearest = level.sort((a, b) => away(a) - away(b))[0];
  if (nearest) return { node: nearest.node, offset: x < nearest.box.left ? 0 : nearest.node.length };
  const above = pieces
    .filter((p) => p.box.bottom <= y)
    .sort((a, b) => b.box.bottom - a.box.bottom || b.box.right - a.box.right)[0];
  return above ? { node: above.node, offset: above.node.length } : pieces[0] && { node: pieces[0].node, offset: 0 };
}
