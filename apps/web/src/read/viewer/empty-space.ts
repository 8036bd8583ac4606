/**
 * What is selected when the pointer is dragged beside the text and not over it: the line at the height of the pointer, to its end;
 * or from its beginning, when the pointer is left of it. (pdf.js alone would stop at the last letter the pointer was over.)
 */
import { useEventListener } from '@vueuse/core';
import type { Ref } from 'vue';

/** @param pages what holds the layers of text */
export function watchEmptySpace(pages: Ref<HTMLElement | undefined>): void {
  let isPressed = false;
  const layers = (): HTMLElement[] => [...(pages.value?.querySelectorAll<HTMLElement>('.textLayer') ?? [])];
  useEventListener(document, 'pointerdown', () => void (isPressed = true));
  useEventListener(document, 'pointermove', (event: PointerEvent) => {
    if (isPressed) requestAnimationFrame(() => toPointer(event, layers()));
  });
  useEventListener(document, 'pointerup', (event: PointerEvent) => {
    isPressed = false;
    toPointer(event, layers());
  });
  useEventListener(window, 'blur', () => void (isPressed = false));
}

/** Takes the selection to the line level with the pointer, when the pointer is on no text. */
function toPointer({ clientX: x, clientY: y }: PointerEvent, layers: HTMLElement[]): void {
  const selection = getSelection();
  const anchor = selection?.anchorNode;
  if (!selection || !anchor || selection.isCollapsed) return;
  const under = document.elementFromPoint(x, y);
  const isOnText = under?.closest('.textLayer') && !under.matches('.textLayer, .endOfContent');
  if (isOnText || !layers.some((l) => l.contains(anchor))) return;
  const layer = layers.find((l) => isLevel(l.getBoundingClientRect(), y));
  const end = layer && endBeside(layer, x, y);
  if (end) selection.setBaseAndExtent(anchor, selection.anchorOffset, end.node, end.offset);
}

const isLevel = (box: DOMRect, y: number): boolean => box.top <= y && y <= box.bottom;

/** The place in the text that stands nearest to a point beside it: on its line, else at the end of the line above. */
function endBeside(layer: HTMLElement, x: number, y: number): { node: Text; offset: number } | undefined {
  const pieces = [...layer.querySelectorAll('span')]
    .filter((s) => s.firstChild instanceof Text && s.textContent!.trim())
    .map((s) => ({ node: s.firstChild as Text, box: s.getBoundingClientRect() }));
  const level = pieces.filter((p) => isLevel(p.box, y));
  const away = ({ box }: (typeof pieces)[number]): number => Math.max(box.left - x, x - box.right, 0);
  const nearest = level.sort((a, b) => away(a) - away(b))[0];
  if (nearest) return { node: nearest.node, offset: x < nearest.box.left ? 0 : nearest.node.length };
  const above = pieces
    .filter((p) => p.box.bottom <= y)
    .sort((a, b) => b.box.bottom - a.box.bottom || b.box.right - a.box.right)[0];
  return above ? { node: above.node, offset: above.node.length } : pieces[0] && { node: pieces[0].node, offset: 0 };
}
