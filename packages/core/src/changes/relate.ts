import { subjects, type Id, type Kind } from './kind.ts';
import { isFlag, isId, isOneOf, shaped } from './json.ts';
import { idOf } from './draw.ts';

/** How two sources stand to each other. `other than`: they look alike and are two works. */
export const RELATIONS = ['version of', 'other than'] as const;
export type Relation = (typeof RELATIONS)[number];

/** A relation between two sources is said, or taken back. */
export interface RelateChange {
  do: 'relate';
  from: Id;
  to: Id;
  as: Relation;
  present: boolean;
}

export const relationKey = ({ from, to, as }: Pick<RelateChange, 'from' | 'to' | 'as'>): string =>
  `${from} ${as} ${to}`;

export const relate: Kind<RelateChange> = {
  do: 'relate',
  version: 1,
  check: (json) => shaped<RelateChange>(json, { from: isId, to: isId, as: isOneOf(...RELATIONS), present: isFlag }),
  apply(library, change) {
    const key = relationKey(change);
    if (change.from === change.to || !library.sources.has(change.from) || !library.sources.has(change.to)) return null;
    if (library.relations.has(key) === change.present) return null;
    if (change.present) library.relations.add(key);
    else library.relations.delete(key);
    return change;
  },
  invert: (change) => ({ ...change, present: !change.present }),
  isEmpty: (change) => change.from === change.to,
  describe: ({ as, present }) =>
    as === 'other than'
      ? present
        ? 'Said that two sources are not the same work'
        : 'Took back that two sources are not the same work'
      : present
        ? 'Said that a source is a version of another'
        : 'Took back that a source is a version of another',
  touches: (change) => subjects('source', new Set([change.from, change.to])),
  sample(draw) {
    const ids = [...draw.library.sources.keys()];
    return { do: 'relate', from: idOf(draw, ids), to: idOf(draw, ids), as: draw.pick(RELATIONS), present: draw.flag() };
  },
};
