/** What is dragged within the page: sources to collections, collections to collections. */
import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter';
import type { Directive } from 'vue';
import type { Chosen } from '@pandecta/contract';

export interface DragSources {
  what: 'sources';
  chosen: Chosen;
  count: number;
}
export interface DragCollection {
  what: 'collection';
  collection: string;
  placement: string;
}
export type Dragged = DragSources | DragCollection;

/** What a directive keeps on its element: the newest value, since elements of a list are used again for others. */
type Held = HTMLElement & { dragged?: () => Dragged; drop?: Drop; dragEnd?: () => void };

/** `v-drag="() => dragged"`: the element can be dragged and carries what the function gives. */
export const vDrag: Directive<HTMLElement, () => Dragged> = {
  mounted(el: Held, binding) {
    el.dragged = binding.value;
    el.dragEnd = draggable({ element: el, getInitialData: () => ({ ...el.dragged!() }) });
  },
  updated: (el: Held, binding) => void (el.dragged = binding.value),
  unmounted: (el: Held) => el.dragEnd?.(),
};

export interface Drop {
  over: (dragged: Dragged | null) => void;
  dropped: (dragged: Dragged) => void;
  accepts: (dragged: Dragged) => boolean;
}

/** `v-drop="{ over, dropped, accepts }"`: the element takes what is dropped on it. */
export const vDrop: Directive<HTMLElement, Drop> = {
  mounted(el: Held, binding) {
    const read = (data: Record<string | symbol, unknown>): Dragged => data as unknown as Dragged;
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
