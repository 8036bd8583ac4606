import { isObject, same } from '../source/record.ts';
import { Conflict, flip, subjects, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isId, isOneOf, isText, shaped } from './json.ts';
import { idOf } from './draw.ts';

/**
 * How one source stands to another, said from either side. `other than`: they look alike and are two works. What law says
 * of one decision and another is common practice of those who note up cases.
 */
export const RELATIONS = {
  'version of': { from: 'Version of', to: 'Version of' },
  'other than': { from: 'Not the same work as', to: 'Not the same work as' },
  'agrees with': { from: 'Agrees with', to: 'Agreed with by' },
  'disagrees with': { from: 'Disagrees with', to: 'Disagreed with by' },
  cites: { from: 'Cites', to: 'Cited by' },
  'replies to': { from: 'Replies to', to: 'Replied to by' },
  'translation of': { from: 'Translation of', to: 'Translated as' },
  'part of': { from: 'Part of', to: 'Has the part' },
  'supplement to': { from: 'Supplement to', to: 'Supplemented by' },
  follows: { from: 'Follows', to: 'Followed by' },
  distinguishes: { from: 'Distinguishes', to: 'Distinguished by' },
  overrules: { from: 'Overrules', to: 'Overruled by' },
  affirms: { from: 'Affirms', to: 'Affirmed by' },
  reverses: { from: 'Reverses', to: 'Reversed by' },
  applies: { from: 'Applies', to: 'Applied by' },
} as const satisfies Record<string, { from: string; to: string }>;
export type Relation = keyof typeof RELATIONS;
export const ALL_RELATIONS = Object.keys(RELATIONS) as Relation[];

/** What is said of it besides: why, and on which page. */
export interface Said {
  note: string;
  page: string;
}
export const NOTHING_SAID: Said = { note: '', page: '' };

/** A relation between two sources is said, said otherwise, or taken back; null where there is none. */
export interface RelateChange {
  do: 'relate';
  from: Id;
  to: Id;
  as: Relation;
  said: BeforeAfter<Said>;
}

const isSaid = (v: unknown): boolean => isObject(v) && isText(v.note) && isText(v.page);

export const relationKey = ({ from, to, as }: Pick<RelateChange, 'from' | 'to' | 'as'>): string =>
  `${from} ${as} ${to}`;

export const relate: Kind<RelateChange> = {
  do: 'relate',
  version: 2,
  check({ present, ...json }) {
    // The first form knew only whether there is one.
    const said =
      typeof present === 'boolean'
        ? { before: present ? null : NOTHING_SAID, after: present ? NOTHING_SAID : null }
        : json.said;
    const shape = { from: isId, to: isId, as: isOneOf(...ALL_RELATIONS), said: isBeforeAfter(isSaid) };
    return shaped<RelateChange>({ ...json, said }, shape);
  },
  apply(library, change) {
    const key = relationKey(change);
    if (!library.sources.has(change.from) || !library.sources.has(change.to)) return null;
    if (!sayable(library.relations.get(key) ?? null, change)) return null;
    if (change.said.after) library.relations.set(key, change.said.after);
    else library.relations.delete(key);
    return change;
  },
  invert: (change) => ({ ...change, said: flip(change.said) }),
  isEmpty: ({ from, to, said }) => from === to || same(said.before, said.after),
  describe({ as, said: { before, after } }) {
    if (before && after) return `Changed what is said of a relation: ${as}`;
    return `${after ? 'Added' : 'Removed'} a relation between two sources: ${as}`;
  },
  touches: (change) => subjects('source', new Set([change.from, change.to])),
  sample(draw) {
    const ids = [...draw.library.sources.keys()];
    const of = { from: idOf(draw, ids), to: idOf(draw, ids), as: draw.pick(ALL_RELATIONS.slice(0, 3)) };
    const now = draw.library.relations.get(relationKey(of)) ?? null;
    const any = (): Said => ({ note: draw.pick(['', 'On the duty']), page: draw.pick(['', '12']) });
    const before = draw.pick([now, now, any()]);
    return { do: 'relate', ...of, said: { before, after: draw.pick([any(), null]) } };
  },
};

/**
 * Whether there is anything to say.
 * @throws Conflict when something else is said of the two meanwhile
 */
export function sayable(now: Said | null, { from, to, said }: RelateChange): boolean {
  if (from === to || same(now, said.after)) return false;
  if (!same(now, said.before))
    throw new Conflict({ kind: 'source', id: from }, [{ what: 'what is said of how the two stand', ...said, now }]);
  return true;
}
