import { subjects, type Id, type Kind } from './kind.ts';
import { isFlag, isId, isText, shaped } from './json.ts';
import { idOf } from './draw.ts';

/** A collection is made or removed; removed, it is kept with all that is filed in it. */
export interface CollectionChange {
  do: 'collection';
  collection: Id;
  name: string;
  present: boolean;
}

export const collection: Kind<CollectionChange> = {
  do: 'collection',
  version: 1,
  check: (json) => shaped<CollectionChange>(json, { collection: isId, name: isText, present: isFlag }),
  apply(library, change) {
    const known = library.collections.get(change.collection);
    if ((known?.present ?? false) === change.present) return null;
    // A name it was given since stays.
    if (known) known.present = change.present;
    else {
      const { name, present } = change;
      library.collections.set(change.collection, { name, says: null, until: null, rule: null, present });
    }
    return change;
  },
  invert: (change) => ({ ...change, present: !change.present }),
  isEmpty: () => false,
  describe: ({ present, name }) => `${present ? 'Made' : 'Removed'} the collection ${name}`,
  touches: (change) => subjects('collection', [change.collection]),
  makes: (change) => (change.present ? subjects('collection', [change.collection]) : []),
  sample(draw) {
    const id = draw.flag() ? draw.id() : idOf(draw, draw.library.collections.keys());
    const known = draw.library.collections.get(id);
    return { do: 'collection', collection: id, name: known?.name ?? draw.text(), present: !known || draw.flag() };
  },
};
