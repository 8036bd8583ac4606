import { Conflict, flip, subjects, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isFlag, isId, isIds, isOrNull, shaped } from './json.ts';
import { isObject, same } from '../source/record.ts';
import { idOf } from './draw.ts';

/** What was decided of a page while going through many. */
export interface PageState {
  used: boolean;
  /** It is to be looked at again. */
  check: boolean;
  sense: Id | null;
  /** In the order they were given. */
  tags: Id[];
}

/** A page of a file is sorted; null where nothing is said of it. */
export interface PageStateChange {
  do: 'page-state';
  source: Id;
  file: Id;
  /** Counted from 1. */
  page: number;
  state: BeforeAfter<PageState>;
}

export const NOT_SORTED: PageState = { used: false, check: false, sense: null, tags: [] };

/** The state as it is kept: none where it says nothing. */
export const keptState = (state: PageState): PageState | null => (same(state, NOT_SORTED) ? null : state);

export const pageKey = ({ file, page }: Pick<PageStateChange, 'file' | 'page'>): string => `${file} ${page}`;

const isPageState = (v: unknown): boolean =>
  isObject(v) && isFlag(v.used) && isFlag(v.check) && isOrNull(isId)(v.sense) && isIds(v.tags);

export const pageState: Kind<PageStateChange> = {
  do: 'page-state',
  version: 1,
  check: (json) =>
    shaped<PageStateChange>(json, {
      source: isId,
      file: isId,
      page: (v) => Number.isInteger(v) && (v as number) > 0,
      state: isBeforeAfter(isPageState),
    }),
  apply(library, change) {
    if (!library.files.has(change.file)) return null;
    const key = pageKey(change);
    if (!sortable(library.pageStates.get(key) ?? null, change)) return null;
    if (change.state.after === null) library.pageStates.delete(key);
    else library.pageStates.set(key, change.state.after);
    return change;
  },
  invert: (change) => ({ ...change, state: flip(change.state) }),
  joined(earlier, later) {
    if (pageKey(earlier) !== pageKey(later) || !same(earlier.state.after, later.state.before)) return null;
    const state = { before: earlier.state.before, after: later.state.after };
    return same(state.before, state.after) ? null : { ...later, state };
  },
  isEmpty: ({ state }) => same(state.before, state.after),
  describe({ page, state: { before, after } }) {
    if (!after) return `Took back what was said of page ${page}`;
    if (after.used !== (before?.used ?? false))
      return after.used ? `Marked page ${page} as used` : `Marked page ${page} as not used`;
    if (after.check !== (before?.check ?? false))
      return after.check ? `Put page ${page} down to be checked again` : `Checked page ${page} again`;
    return `Sorted page ${page}`;
  },
  touches: (change) => subjects('source', [change.source]),
  sample(draw) {
    const at = { file: idOf(draw, draw.library.files.keys()), page: 1 };
    const now = draw.library.pageStates.get(pageKey(at)) ?? null;
    const before = draw.pick([now, now, { ...NOT_SORTED, check: true }]);
    const after = draw.pick([null, { ...NOT_SORTED, used: true }, { ...NOT_SORTED, check: true, tags: [draw.id()] }]);
    return { do: 'page-state', source: idOf(draw, draw.library.sources.keys()), ...at, state: { before, after } };
  },
};

/**
 * Whether there is anything to write.
 * @throws Conflict where something else is said of the page meanwhile
 */
export function sortable(now: PageState | null, { state, source, page }: PageStateChange): boolean {
  if (!same(now, state.before))
    throw new Conflict({ kind: 'source', id: source }, [{ what: `what is said of page ${page}`, ...state, now }]);
  return !same(state.before, state.after);
}
