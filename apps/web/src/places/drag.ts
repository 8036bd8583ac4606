/** What is dragged within the page: sources to collections, collections to collections. */
import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter';
import type { Directive } from 'vue';

export interface DragSources {
  what: 'sources';
  ids: string[];
}
export interface DragCollection {
  what: 'collection';
  collection: string;
  placement: string;
}
export type Dragged = DragSources | DragCollection;

type Cleanup = HTMLElement & { dragEnd?: () => void };

/** `v-drag="() => dragged"`: the element can be dragged and carries what the function gives. */
export const vDrag: Directive<HTMLElement, () => Dragged> = {
  mounted(el: Cleanup, binding) {
    el.dragEnd = draggable({ element: el, getInitialData: () => ({ ...binding.value() }) });
  },
  unmounted: (el: Cleanup) => el.dragEnd?.(),
};

export interface Drop {
  over: (dragged: Dragged | null) => void;
  dropped: (dragged: Dragged) => void;
  accepts: (dragged: Dragged) => boolean;
}

/** `v-drop="{ over, dropped, accepts }"`: the element takes what is dropped on it. */
export const vDrop: Directive<HTMLElement, Drop> = {
  mounted(el: Cleanup, binding) {
    const read = (data: Record<string | symbol, unknown>): Dragged => data as unknown as Dragged;
    el.dragEnd = dropTargetForElements({
      element: el,
      canDrop: ({ source }) => binding.value.accepts(read(source.data)),
      onDragEnter: ({ source }) => binding.value.over(read(source.data)),
      onDragLeave: () => binding.value.over(null),
      onDrop: ({ source }) => {
        binding.value.over(null);
        binding.value.dropped(read(source.data));
      },
    });
  },
  unmounted: (el: Cleanup) => el.dragEnd?.(),
};
