import { subjects, type Id, type Kind } from './kind.ts';
import { isFlag, isId, isOptional, isText, shaped } from './json.ts';
import { idOf } from './draw.ts';

/** A collection is made or removed; removed, it is kept with all that is filed in it. */
export interface CollectionChange {
  do: 'collection';
  collection: Id;
  name: string;
  present: boolean;
  /** Of a collection that is one member's own: whose. */
  own?: Id;
}

export const collection: Kind<CollectionChange> = {
  do: 'collection',
  version: 1,
  check: (json) =>
    shaped<CollectionChange>(json, { collection: isId, name: isText, present: isFlag, own: isOptional(isId) }),
  apply(library, change) {
    const known = library.collections.get(change.collection);
    if ((known?.present ?? false) === change.present) return null;
    // A name it was given since stays.
    if (known) known.present = change.present;
    else {
      const { name, present, own } = change;
      const said = { says: null, until: null, rule: null, allows: null, owner: own ?? null };
      library.collections.set(change.collection, { name, ...said, present });
    }
    return change;
  },
  invert: (change) => ({ ...change, present: !change.present }),
  isEmpty: () => false,
  describe: ({ present, name }) => `${present ? 'Made' : 'Removed'} the collection ${name}`,
  touches: (change) => subjects('collection', [change.collection]),
  makes: (change) => (change.present ? subjects('collection', [change.collection]) : []),
  ownOf: ({ own }) => own,
  sample(draw) {
    const id = draw.flag() ? draw.id() : idOf(draw, draw.library.collections.keys());
    const known = draw.library.collections.get(id);
    const own = (known ? known.owner === draw.member : draw.flag()) ? draw.member : null;
    const name = known?.name ?? draw.text();
    return { do: 'collection', collection: id, name, present: !known || draw.flag(), ...(own && { own }) };
  },
};
