import { subjects, type Id, type Kind } from './kind.ts';
import { isFlag, isId, isIds, shaped } from './json.ts';
import { someSources } from './draw.ts';
import { ownOf } from './library.ts';
import { countSources } from './words.ts';

/** A member's star on sources: their own, seen by no one else. */
export interface StarChange {
  do: 'star';
  member: Id;
  sources: Id[];
  present: boolean;
}

export const star: Kind<StarChange> = {
  do: 'star',
  version: 1,
  check: (json) => shaped<StarChange>(json, { member: isId, sources: isIds, present: isFlag }),
  apply(library, change) {
    const { stars } = ownOf(library, change.member);
    const sources = change.sources.filter((id) => library.sources.has(id) && stars.has(id) !== change.present);
    for (const id of sources) {
      if (change.present) stars.add(id);
      else stars.delete(id);
    }
    return sources.length ? { ...change, sources } : null;
  },
  invert: (change) => ({ ...change, present: !change.present }),
  isEmpty: (change) => change.sources.length === 0,
  describe(change) {
    const n = countSources(change.sources.length);
    return change.present ? `Starred ${n}` : `Took the star from ${n}`;
  },
  touches: (change) => subjects('source', change.sources),
  ownOf: (change) => change.member,
  sample: (draw) => ({ do: 'star', member: draw.member, sources: someSources(draw), present: draw.flag() }),
};
