/** What the keys of a list do, the same in every list: for `useDeeds`. */
import type { ListView } from './make.ts';

type Keyed = Pick<ListView<{ id: string }>, 'move' | 'toggle' | 'selectAll' | 'cursor'>;

/** @param list asked each time, since the line one is at changes */
export const keysOf = (list: Keyed) => ({
  next: () => void list.move(1),
  previous: () => void list.move(-1),
  'select-on': (event?: KeyboardEvent) => void list.move(event?.key === 'ArrowUp' ? -1 : 1, true),
  page: (event?: KeyboardEvent) => void list.move(event?.key === 'PageUp' ? -10 : 10),
  ends: (event?: KeyboardEvent) => void list.move(event?.key === 'Home' ? -Infinity : Infinity),
  select: () => list.cursor && list.toggle(list.cursor),
  'select-all': () => list.selectAll(),
});
