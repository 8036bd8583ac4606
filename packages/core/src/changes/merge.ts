import { subjects, type Id, type Kind } from './kind.ts';
import { isFlag, isId, isIds, shaped } from './json.ts';
import { idOf } from './draw.ts';
import type { Library } from './library.ts';

/**
 * A source becomes part of another that is of the same work: what led to it leads there, and its marks go with it. Taken
 * back, the marks it had come back from wherever they went since, and with them those made since in files it alone has.
 */
export interface MergeChange {
  do: 'merge';
  source: Id;
  into: Id;
  /** The marks that went over, or go back. */
  marks: Id[];
  /** Marks the other had before in files it has not and this one has: they stay when it is taken back. */
  stay?: Id[];
  present: boolean;
}

const idsOf = (marks: [Id, unknown][]): Id[] => marks.map(([id]) => id).sort();

/** Whether the source is the one, or became part of it by way of others. */
function isPartOf(library: Library, source: Id, of: Id): boolean {
  const met = new Set<Id>();
  for (let at: Id | undefined = source; at && !met.has(at); at = library.sources.get(at)?.mergedInto) {
    if (at === of) return true;
    met.add(at);
  }
  return false;
}

export const merge: Kind<MergeChange> = {
  do: 'merge',
  version: 1,
  check: (json) => ({
    ...shaped<Omit<MergeChange, 'stay'>>(json, { source: isId, into: isId, marks: isIds, present: isFlag }),
    ...(isIds(json.stay) && { stay: json.stay as Id[] }),
  }),
  apply(library, change) {
    const { source, into, present } = change;
    const one = library.sources.get(source);
    const target = library.sources.get(into);
    if (!one || source === into) return null;
    if (present) {
      if (one.presence !== 'live' || target?.presence !== 'live') return null;
      one.presence = 'merged';
      one.mergedInto = into;
    } else {
      if (one.presence !== 'merged' || one.mergedInto !== into) return null;
      one.presence = 'live';
      delete one.mergedInto;
    }
    const isOfSource = (m: { source: Id; place: { file: Id } }): boolean =>
      !library.sources.get(m.source)!.files.has(m.place.file) && one.files.has(m.place.file);
    const all = [...library.marks];
    const stay = present ? idsOf(all.filter(([, m]) => m.source === into && isOfSource(m))) : (change.stay ?? []);
    const moved = all.filter(([id, m]) =>
      present
        ? m.source === source
        : isPartOf(library, into, m.source) && (change.marks.includes(id) || (isOfSource(m) && !stay.includes(id))),
    );
    for (const [, m] of moved) m.source = present ? into : source;
    const { stay: _, ...rest } = change;
    return { ...rest, marks: idsOf(moved), ...(stay.length && { stay }) };
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
