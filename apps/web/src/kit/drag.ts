/** Dragging within the page: what can be dragged carries something, what takes it says what it accepts. */
import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter';
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

/** What takes things of one make. */
export interface Drop<D extends object = never> {
  over: (dragged: D | null) => void;
  dropped: (dragged: D) => void;
  accepts: (dragged: D) => boolean;
}

/** `v-drop="{ over, dropped, accepts }"`: the element takes what is dropped on it. */
export const vDrop: Directive<HTMLElement, Drop> = {
  mounted(el: Held, binding) {
    const read = (data: Record<string | symbol, unknown>): never => data as never;
    el.drop = binding.value;
    el.dragEnd = dropTargetForElements({
      element: el,
      canDrop: ({ source }) => el.drop!.accepts(read(source.data)),
      onDragEnter: ({ source }) => el.drop!.over(read(source.data)),
      onDragLeave: () => el.drop!.over(null),
      onDrop: ({ source }) => {
        el.drop!.over(null);
        el.drop!.dropped(read(source.data));
      },
    });
  },
  updated: (el: Held, binding) => void (el.drop = binding.value),
  unmounted: (el: Held) => el.dragEnd?.(),
};
