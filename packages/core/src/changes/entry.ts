import { isObject, same } from '../source/record.ts';
import { Conflict, flip, subjects, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isId, isOneOf, shaped } from './json.ts';
import { idOf } from './draw.ts';

/**
 * The short lists a workspace keeps, each entry a small value that is written as a whole: saved searches, the folders
 * they lie in, labels, senses of marks, headings, outlines.
 */
export const LISTS = ['saved', 'folder', 'label', 'sense', 'heading', 'outline'] as const;
export type List = (typeof LISTS)[number];

/** What every entry has; the rest is its list's. */
export interface Entry {
  name: string;
  /** The one member whose own it is and who alone sees it; null where it is all members'. */
  owner: Id | null;
  [field: string]: unknown;
}

const CALLED: Record<List, string> = {
  saved: 'saved search',
  folder: 'folder',
  label: 'label',
  sense: 'sense',
  heading: 'heading',
  outline: 'outline',
};

/** An entry of a list is made, altered or removed: before and after are all of it, null where there is none. */
export interface EntryChange {
  do: 'entry';
  list: List;
  entry: Id;
  value: BeforeAfter<Entry>;
}

const isEntry = (v: unknown): boolean =>
  isObject(v) && typeof v.name === 'string' && (v.owner === null || isId(v.owner));

export const entryKey = ({ list, entry }: Pick<EntryChange, 'list' | 'entry'>): string => `${list} ${entry}`;

export const entry: Kind<EntryChange> = {
  do: 'entry',
  version: 1,
  check: (json) => shaped<EntryChange>(json, { list: isOneOf(...LISTS), entry: isId, value: isBeforeAfter(isEntry) }),
  apply(library, change) {
    const key = entryKey(change);
    if (!enterable(library.entries.get(key) ?? null, change)) return null;
    if (change.value.after) library.entries.set(key, change.value.after);
    else library.entries.delete(key);
    return change;
  },
  invert: (change) => ({ ...change, value: flip(change.value) }),
  isEmpty: ({ value }) => same(value.before, value.after),
  describe({ list, value: { before, after } }) {
    const what = CALLED[list];
    if (!before) return `Made the ${what} “${after?.name ?? ''}”`;
    if (!after) return `Removed the ${what} “${before.name}”`;
    return before.name === after.name
      ? `Changed the ${what} “${after.name}”`
      : `Renamed the ${what} “${before.name}” to “${after.name}”`;
  },
  touches: ({ list, entry }) => subjects(list, [entry]),
  makes: ({ list, entry, value }) => (value.before ? [] : subjects(list, [entry])),
  ownOf({ value: { before, after } }) {
    const owner = (before ?? after)?.owner ?? undefined;
    return owner === ((after ?? before)?.owner ?? undefined) ? owner : undefined;
  },
  sample(draw) {
    const list = draw.pick(LISTS);
    // What is another member's own nobody else sees, and so nobody else alters.
    const seen = [...draw.library.entries].filter(([, { owner }]) => !owner || owner === draw.member);
    const known = new Map(seen.filter(([key]) => key.startsWith(`${list} `)));
    const id = draw.flag()
      ? draw.id()
      : idOf(
          draw,
          [...known.keys()].map((k) => k.slice(list.length + 1)),
        );
    const value = (): Entry => ({ name: draw.text(), owner: draw.flag() ? draw.member : null });
    const before = known.get(`${list} ${id}`) ?? (draw.flag() ? null : value());
    return { do: 'entry', list, entry: id, value: { before, after: draw.flag() ? value() : null } };
  },
};

/**
 * Whether there is anything to write.
 * @throws Conflict when the entry is another meanwhile
 */
export function enterable(now: Entry | null, { list, entry, value }: EntryChange): boolean {
  if (!same(now, value.before))
    throw new Conflict({ kind: list, id: entry }, [{ what: `the ${CALLED[list]}`, ...value, now }]);
  return !same(value.before, value.after);
}
