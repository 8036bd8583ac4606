import { v7 as uuidv7 } from 'uuid';
import type { ChangeOf } from '@pandecta/core/changes';

/** A collection as changes name it; of one that is a member's own, whose it is. */
export interface Named {
  id: string;
  name: string;
  owner?: string | null;
}

/** One as a member sees it: theirs, or everyone's. */
export const namedFor = (member: string, { id, name, mine }: { id: string; name: string; mine: boolean }): Named => ({
  id,
  name,
  owner: mine ? member : null,
});

const whose = ({ owner }: Named): { own?: string } => (owner ? { own: owner } : {});

/** A collection is given a place under another, or at the top; with the id of one it has, it loses that. */
export const placed = (of: Named, parent: string | null, leaves?: string): ChangeOf<'placement'> => ({
  do: 'placement',
  placement: leaves ?? uuidv7(),
  collection: of.id,
  name: of.name,
  parent,
  present: leaves === undefined,
  ...whose(of),
});

/** A collection is made, or goes. */
export const there = (of: Named, present: boolean): ChangeOf<'collection'> => ({
  do: 'collection',
  collection: of.id,
  name: of.name,
  present,
  ...whose(of),
});

/** Sources are filed in a collection, or taken from it. */
export const filed = (of: Named, sources: string[], present: boolean): ChangeOf<'file'> => ({
  do: 'file',
  collection: of.id,
  name: of.name,
  sources,
  present,
  ...whose(of),
});

/** Something else is said of a collection. */
export const said = (of: Named, fields: ChangeOf<'collection-edit'>['fields']): ChangeOf<'collection-edit'> => ({
  do: 'collection-edit',
  collection: of.id,
  called: of.name,
  fields,
  ...(!fields.owner && whose(of)),
});

/** Placements beside each other are given their ranks. */
export const ordered = (of: Named, ranks: ChangeOf<'order'>['ranks']): ChangeOf<'order'> => ({
  do: 'order',
  collection: of.id,
  ranks,
  ...whose(of),
});
