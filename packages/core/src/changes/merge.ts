import { subjects, type Id, type Kind } from './kind.ts';
import { isFlag, isId, isIds, shaped } from './json.ts';
import { idOf } from './draw.ts';

/** A source becomes part of another that is of the same work: what led to it leads there, and its marks go with it. */
export interface MergeChange {
  do: 'merge';
  source: Id;
  into: Id;
  /** The marks that went over, or go back. */
  marks: Id[];
  present: boolean;
}

export const merge: Kind<MergeChange> = {
  do: 'merge',
  version: 1,
  check: (json) => shaped<MergeChange>(json, { source: isId, into: isId, marks: isIds, present: isFlag }),
  apply(library, change) {
    const { source, into, present } = change;
    const one = library.sources.get(source);
    const target = library.sources.get(into);
    if (!one || !target || source === into) return null;
    if (present) {
      if (one.presence !== 'live' || target.presence !== 'live') return null;
      one.presence = 'merged';
      one.mergedInto = into;
    } else {
      if (one.presence !== 'merged' || one.mergedInto !== into) return null;
      one.presence = 'live';
      delete one.mergedInto;
    }
    const [from, to] = present ? [source, into] : [into, source];
    const marks = [...library.marks].filter(([id, m]) => m.source === from && (present || change.marks.includes(id)));
    for (const [, m] of marks) m.source = to;
    return { ...change, marks: marks.map(([id]) => id).sort() };
  },
  invert: (change) => ({ ...change, present: !change.present }),
  isEmpty: (change) => change.source === change.into,
  describe: ({ present }) => (present ? 'Merged a source into another' : 'Took a merged source apart again'),
  touches: (change) => subjects('source', new Set([change.source, change.into])),
  sample(draw) {
    const ids = [...draw.library.sources.keys()];
    return { do: 'merge', source: idOf(draw, ids), into: idOf(draw, ids), marks: [], present: draw.flag() };
  },
};
