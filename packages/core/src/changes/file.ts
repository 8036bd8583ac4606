import { subjects, type Id, type Kind } from './kind.ts';
import { isFlag, isId, isIds, isOptional, isText, shaped } from './json.ts';
import { idOf, someSources } from './draw.ts';
import { tie } from './library.ts';
import { countSources } from './words.ts';

/** Sources are filed in a collection or taken from it. */
export interface FileChange {
  do: 'file';
  collection: Id;
  name: string;
  sources: Id[];
  present: boolean;
  /** Of a collection that is one member's own: whose. */
  own?: Id;
}

export const file: Kind<FileChange> = {
  do: 'file',
  version: 1,
  check: (json) =>
    shaped<FileChange>(json, {
      collection: isId,
      name: isText,
      sources: isIds,
      present: isFlag,
      own: isOptional(isId),
    }),
  apply(library, change) {
    const sources = tie(library, change.sources, (s) => s.collections, change.collection, change.present);
    return sources.length ? { ...change, sources } : null;
  },
  invert: (change) => ({ ...change, present: !change.present }),
  isEmpty: (change) => change.sources.length === 0,
  describe(change) {
    const n = countSources(change.sources.length);
    return change.present ? `Filed ${n} in ${change.name}` : `Removed ${n} from ${change.name}`;
  },
  touches: (change) => [...subjects('source', change.sources), { kind: 'collection', id: change.collection }],
  ownOf: ({ own }) => own,
  sample(draw) {
    const collection = idOf(draw, draw.library.collections.keys());
    const known = draw.library.collections.get(collection);
    const name = known?.name ?? draw.text();
    const own = known?.owner === draw.member ? draw.member : null;
    return { do: 'file', collection, name, sources: someSources(draw), present: draw.flag(), ...(own && { own }) };
  },
};
