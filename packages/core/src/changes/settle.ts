import { subjects, type Id, type Kind } from './kind.ts';
import { isFlag, isId, isOneOf, isOrNull, isText, shaped } from './json.ts';
import { idOf } from './draw.ts';

/** `aside`: what a rule finds is meant so. `word`: a word keeps its form, whatever case its title is set in. */
export const SETTLED = ['aside', 'word'] as const;
export type Settled = (typeof SETTLED)[number];

/** What proofing is told once and for good, or what is taken back of it. */
export interface SettleChange {
  do: 'settle';
  what: Settled;
  /** The rule by its id, or the word as it is written. */
  name: string;
  /** The one source it holds for; null for the whole workspace. */
  source: Id | null;
  present: boolean;
}

export const settledKey = ({ what, name, source }: Pick<SettleChange, 'what' | 'name' | 'source'>): string =>
  `${what} ${source ?? 'all'} ${name}`;

export const settle: Kind<SettleChange> = {
  do: 'settle',
  version: 1,
  check: (json) =>
    shaped<SettleChange>(json, { what: isOneOf(...SETTLED), name: isText, source: isOrNull(isId), present: isFlag }),
  apply(library, change) {
    const key = settledKey(change);
    if (change.source && !library.sources.has(change.source)) return null;
    if (library.settled.has(key) === change.present) return null;
    if (change.present) library.settled.add(key);
    else library.settled.delete(key);
    return change;
  },
  invert: (change) => ({ ...change, present: !change.present }),
  isEmpty: () => false,
  describe: ({ what, name, source, present }) =>
    what === 'word'
      ? `${present ? '' : 'No longer '}${present ? 'K' : 'k'}eeps “${name}” as it is written`
      : `${present ? 'Set aside' : 'Took up again'} what “${name}” finds${source ? ' in a source' : ''}`,
  touches: ({ source }) => subjects('source', source ? [source] : []),
  sample(draw) {
    const what = draw.pick(SETTLED);
    const source = draw.flag() ? idOf(draw, draw.library.sources.keys()) : null;
    return { do: 'settle', what, name: draw.pick(['title-case', 'Zechstein']), source, present: draw.flag() };
  },
};
