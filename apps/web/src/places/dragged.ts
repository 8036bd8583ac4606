/** What is dragged within the page: sources to collections, collections to collections. */
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
  name: string;
}
export type Dragged = DragSources | DragCollection;
