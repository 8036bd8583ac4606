import { subjects, type Id, type Kind } from './kind.ts';
import { isFlag, isId, isOptional, isOrNull, isText, shaped } from './json.ts';
import { idOf } from './draw.ts';

/** A collection is given a place in the tree, or loses one. */
export interface PlacementChange {
  do: 'placement';
  placement: Id;
  collection: Id;
  name: string;
  /** The collection it stands under; null at the top. */
  parent: Id | null;
  present: boolean;
  /** Of a collection that is one member's own: whose. */
  own?: Id;
}

export const placement: Kind<PlacementChange> = {
  do: 'placement',
  version: 1,
  check: (json) =>
    shaped<PlacementChange>(json, {
      placement: isId,
      collection: isId,
      name: isText,
      parent: isOrNull(isId),
      present: isFlag,
      own: isOptional(isId),
    }),
  apply(library, change) {
    const known = library.placements.get(change.placement);
    if ((known?.present ?? false) === change.present) return null;
    if (known) known.present = change.present;
    else {
      const { collection, parent, present } = change;
      library.placements.set(change.placement, { collection, parent, present });
    }
    return change;
  },
  invert: (change) => ({ ...change, present: !change.present }),
  isEmpty: () => false,
  describe: ({ present, name }) => (present ? `Placed ${name}` : `Removed a placement of ${name}`),
  touches: (change) => subjects('collection', [change.collection]),
  ownOf: ({ own }) => own,
  sample(draw) {
    const known = [...draw.library.placements];
    if (known.length && draw.flag()) {
      const [id, { collection, parent }] = draw.pick(known);
      return { do: 'placement', placement: id, collection, name: '', parent, present: draw.flag() };
    }
    const collection = idOf(draw, draw.library.collections.keys());
    return { do: 'placement', placement: draw.id(), collection, name: '', parent: null, present: true };
  },
};
