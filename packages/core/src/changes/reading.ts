import { subjects, flipAll, standing, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isId, isOneOf, isRecordOf, shaped } from './json.ts';
import { someSources } from './draw.ts';
import { ownOf } from './library.ts';
import { countSources } from './words.ts';

export const READING_STATES = ['to read', 'reading', 'read'] as const;
export type ReadingState = (typeof READING_STATES)[number];

/** How far a member has read sources: their own, seen by no one else. */
export interface ReadingChange {
  do: 'reading';
  member: Id;
  states: Record<Id, BeforeAfter<ReadingState>>;
}

export const reading: Kind<ReadingChange> = {
  do: 'reading',
  // 1: the state of a source was everyone's; taken back, it is that of whoever had set it.
  version: 2,
  check: (json, { by }) =>
    shaped<ReadingChange>(
      { ...json, member: json.member ?? by },
      { member: isId, states: isRecordOf(isId, () => isBeforeAfter(isOneOf(...READING_STATES))) },
    ),
  apply(library, change) {
    const own = ownOf(library, change.member).reading;
    const states = standing(change.states, (id) => (library.sources.has(id) ? (own.get(id) ?? null) : undefined));
    for (const [id, { after }] of Object.entries(states ?? {})) {
      if (after) own.set(id, after);
      else own.delete(id);
    }
    return states && { ...change, states };
  },
  invert: (change) => ({ ...change, states: flipAll(change.states) }),
  isEmpty: (change) => Object.keys(change.states).length === 0,
  describe({ states }) {
    const values = new Set(Object.values(states).map((s) => s.after));
    const n = countSources(Object.keys(states).length);
    if (values.size > 1) return `Changed the reading state of ${n}`;
    const [state] = values;
    return state ? `Set ${n} to “${state}”` : `Cleared the reading state of ${n}`;
  },
  touches: (change) => subjects('source', Object.keys(change.states)),
  ownOf: (change) => change.member,
  sample(draw) {
    const own = ownOf(draw.library, draw.member).reading;
    const states = someSources(draw).map((id) => [
      id,
      { before: draw.pick([own.get(id) ?? null, null]), after: draw.pick([null, ...READING_STATES]) },
    ]);
    return { do: 'reading', member: draw.member, states: Object.fromEntries(states) };
  },
};
