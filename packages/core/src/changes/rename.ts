import { Conflict, flip, subjects, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isId, isText, shaped } from './json.ts';
import { idOf } from './draw.ts';

/** A collection gets another name. */
export interface RenameChange {
  do: 'rename';
  collection: Id;
  name: BeforeAfter<string>;
}

export const rename: Kind<RenameChange> = {
  do: 'rename',
  version: 1,
  check: (json) => shaped<RenameChange>(json, { collection: isId, name: isBeforeAfter(isText) }),
  apply(library, change) {
    const known = library.collections.get(change.collection);
    if (!known?.present || !renamable(known.name, change)) return null;
    known.name = change.name.after ?? '';
    return change;
  },
  invert: (change) => ({ ...change, name: flip(change.name) }),
  isEmpty: (change) => change.name.before === change.name.after,
  describe: ({ name }) => `Renamed ${name.before} to ${name.after}`,
  touches: (change) => subjects('collection', [change.collection]),
  sample(draw) {
    const id = idOf(draw, draw.library.collections.keys());
    const before = draw.pick([draw.library.collections.get(id)?.name ?? '', 'Reeds']);
    return { do: 'rename', collection: id, name: { before, after: draw.pick([draw.text(), 'Reeds']) } };
  },
};

/**
 * Whether there is anything to rename.
 * @throws Conflict when the name is another meanwhile
 */
export function renamable(now: string, { collection, name }: RenameChange): boolean {
  if (now !== name.before)
    throw new Conflict({ kind: 'collection', id: collection }, [{ what: 'the name of the collection', ...name, now }]);
  return name.before !== name.after;
}
