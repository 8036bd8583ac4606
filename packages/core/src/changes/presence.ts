import { subjects, type Id, type Kind } from './kind.ts';
import { isFlag, isIds, isOneOf, shaped } from './json.ts';
import { someSources } from './draw.ts';
import { countSources } from './words.ts';

/**
 * Where a source is: `none` before it was added, after its adding was undone, or when it was joined to another; kept all the
 * same. In the `intake` it waits to be taken in; from there it becomes `live`, or is set `aside`. What was `merged`
 * into another leads there.
 */
export const PRESENCES = ['none', 'live', 'bin', 'intake', 'aside', 'merged'] as const;
export type Presence = (typeof PRESENCES)[number];

/** Sources come, go to the bin and come back. */
export interface PresenceChange {
  do: 'presence';
  sources: Id[];
  from: Presence;
  to: Presence;
  /** Set while it is committed, never stored: the sources already stand as `to` says. */
  made?: boolean;
}

export const presence: Kind<PresenceChange> = {
  do: 'presence',
  version: 1,
  check: ({ made, ...json }) => {
    const change = shaped<Omit<PresenceChange, 'made'>>(json, {
      sources: isIds,
      from: isOneOf(...PRESENCES),
      to: isOneOf(...PRESENCES),
    });
    return isFlag(made) ? { ...change, made: made as boolean } : change;
  },
  apply(library, change) {
    const sources = change.sources.filter((id) => library.sources.get(id)?.presence === change.from);
    for (const id of sources) library.sources.get(id)!.presence = change.to;
    return sources.length && change.from !== change.to ? { ...change, sources } : null;
  },
  invert: (change) => ({ ...change, from: change.to, to: change.from }),
  isEmpty: (change) => change.sources.length === 0,
  describe({ sources, from, to }) {
    const n = countSources(sources.length);
    if (to === 'bin') return `Moved ${n} to the bin`;
    if (to === 'none') return from === 'bin' ? `Emptied the bin: ${n} went for good` : `Took back ${n}`;
    if (to === 'aside') return `Set ${n} aside`;
    if (to === 'intake') return from === 'none' ? `Gathered ${n}` : `Put ${n} back into the intake`;
    if (from === 'intake' || from === 'aside') return `Took in ${n}`;
    return from === 'bin' ? `Restored ${n} from the bin` : `Added ${n}`;
  },
  touches: (change) => subjects('source', change.sources),
  makes: (change) => (change.from === 'none' ? subjects('source', change.sources) : []),
  sample(draw) {
    const from = draw.pick(PRESENCES);
    return {
      do: 'presence',
      sources: someSources(draw),
      from,
      to: draw.pick(PRESENCES.filter((p) => p !== from)),
    };
  },
};
