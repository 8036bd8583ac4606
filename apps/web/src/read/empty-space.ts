/**
 * Selecting with the pointer beside the lines. Where a page has no text, a browser takes the selection to the end of the
 * page; so while one selects, an element of the page's whole size stands in the text right behind (or before) the piece
 * the selection reached last. What is under the pointer then is that element, and the selection ends where it is.
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
  document.addEventListener('pointerup', released, { signal });
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
