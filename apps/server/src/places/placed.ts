import { v7 as uuidv7 } from 'uuid';
import type { ChangeOf } from '@pandecta/core/changes';

type Named = { id: string; name: string };

/** A collection is given a place under another, or at the top; with the id of one it has, it loses that. */
export const placed = ({ id, name }: Named, parent: string | null, leaves?: string): ChangeOf<'placement'> => ({
  do: 'placement',
  placement: leaves ?? uuidv7(),
  collection: id,
  name,
  parent,
  present: leaves === undefined,
});

/** A collection is made, or goes. */
export const there = ({ id, name }: Named, present: boolean): ChangeOf<'collection'> => ({
  do: 'collection',
  collection: id,
  name,
  present,
});
