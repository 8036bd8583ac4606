/** Dragging within the page: what can be dragged carries something, what takes it says what it accepts. */
import {
  draggable,
  dropTargetForElements,
  monitorForElements,
} from '@atlaskit/pragmatic-drag-and-drop/element/adapter';
import type { Directive } from 'vue';

/** What a directive keeps on its element: the newest value, since elements of a list are used again for others. */
type Held = HTMLElement & { dragged?: () => object; drop?: Drop; dragEnd?: () => void };

/** `v-drag="() => dragged"`: the element can be dragged and carries what the function gives. */
export const vDrag: Directive<HTMLElement, (() => object) | undefined> = {
  mounted(el: Held, binding) {
    if (!binding.value) return;
    el.dragged = binding.value;
    el.dragEnd = draggable({ element: el, getInitialData: () => ({ ...el.dragged!() }) });
  },
  updated: (el: Held, binding) => void (binding.value && (el.dragged = binding.value)),
  unmounted: (el: Held) => el.dragEnd?.(),
};

/** Where on an element the pointer is: near its upper or its lower edge, or within; across, in its left or right half. */
export type Edge = 'before' | 'after' | 'in';

/** What takes things of one make. */
export interface Drop<D extends object = never> {
  over: (dragged: D | null, edge: Edge) => void;
  dropped: (dragged: D, edge: Edge) => void;
  accepts: (dragged: D) => boolean;
}

/** As much of the height at either edge is before and after. */
const EDGE = 0.28;

function edgeOf(el: HTMLElement, { clientX, clientY }: { clientX: number; clientY: number }, across: boolean): Edge {
  const { top, height, left, width } = el.getBoundingClientRect();
  if (across) return clientX < left + width / 2 ? 'before' : 'after';
  const at = (clientY - top) / height;
  return at < EDGE ? 'before' : at > 1 - EDGE ? 'after' : 'in';
}

/** `v-drop="{ over, dropped, accepts }"`: the element takes what is dropped on it; `v-drop.across` in a row of others. */
export const vDrop: Directive<HTMLElement, Drop, 'across'> = {
  mounted(el: Held, binding) {
    const across = Boolean(binding.modifiers.across);
    const read = (data: Record<string | symbol, unknown>): never => data as never;
    el.drop = binding.value;
    // All that would take what is dragged are lit while it is on its way.
    const endLighting = monitorForElements({
      onDragStart: ({ source }) => el.classList.toggle('takes-drop', el.drop!.accepts(read(source.data))),
      onDrop: () => el.classList.remove('takes-drop'),
    });
    const endDropping = dropTargetForElements({
      element: el,
      canDrop: ({ source }) => el.drop!.accepts(read(source.data)),
      onDrag: ({ source, location }) => el.drop!.over(read(source.data), edgeOf(el, location.current.input, across)),
      onDragLeave: () => el.drop!.over(null, 'in'),
      onDrop: ({ source, location }) => {
        el.drop!.over(null, 'in');
        el.drop!.dropped(read(source.data), edgeOf(el, location.current.input, across));
      },
    });
    el.dragEnd = () => (endLighting(), endDropping());
  },
  updated: (el: Held, binding) => void (el.drop = binding.value),
  unmounted: (el: Held) => el.dragEnd?.(),
};
