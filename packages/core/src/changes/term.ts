import { isObject, same } from '../source/record.ts';
import { Conflict, flip, subjects, type BeforeAfter, type Id, type Kind, type Moved } from './kind.ts';
import { isBeforeAfter, isId, shaped } from './json.ts';
import { idOf } from './draw.ts';
import type { Library } from './library.ts';

/** A tag or a subject term as the workspace's vocabulary has it. */
export interface Term {
  name: string;
  subject: boolean;
  /** What it means here. */
  says: string;
  /** Under which heading of the vocabulary it stands; empty for none. */
  heading: string;
  /** The term it stands under as the narrower one (SKOS: broader); null where it stands for itself. */
  broader: Id | null;
}

/** A term is renamed, described, put under a heading, or goes: before and after are all of it, null where there is none. */
export interface TermChange {
  do: 'term';
  tag: Id;
  term: BeforeAfter<Term>;
}

const isTerm = (v: unknown): boolean =>
  isObject(v) &&
  typeof v.name === 'string' &&
  typeof v.subject === 'boolean' &&
  typeof v.says === 'string' &&
  typeof v.heading === 'string' &&
  (v.broader === undefined || v.broader === null || isId(v.broader));

/** As it was stored before terms stood under others. */
const whole = (t: Term | null): Term | null => t && { ...t, broader: t.broader ?? null };

export const term: Kind<TermChange> = {
  do: 'term',
  version: 1,
  check(json) {
    const change = shaped<TermChange>(json, { tag: isId, term: isBeforeAfter(isTerm) });
    return { ...change, term: { before: whole(change.term.before), after: whole(change.term.after) } };
  },
  apply(library, change) {
    const { tag, term: is } = change;
    const { after } = is;
    const other = [...library.tags].some(
      ([id, t]) =>
        id !== tag && after && t.subject === after.subject && t.name.toLowerCase() === after.name.toLowerCase(),
    );
    if (!nameable(library.tags.get(tag) ?? null, { isTaken: other, isCircle: isCircle(library, change) }, change))
      return null;
    if (after) library.tags.set(tag, after);
    else library.tags.delete(tag);
    return change;
  },
  invert: (change) => ({ ...change, term: flip(change.term) }),
  isEmpty: ({ term: { before, after } }) => same(before, after),
  describe({ term: { before, after } }) {
    const what = (before ?? after)?.subject ? 'subject term' : 'tag';
    if (!after) return `Removed the ${what} “${before?.name ?? ''}”`;
    if (!before) return `Put the ${what} “${after.name}” back`;
    if (before.subject !== after.subject)
      return `Made the ${what} “${before.name}” a ${after.subject ? 'subject term' : 'tag'}`;
    if (before.name !== after.name) return `Renamed the ${what} “${before.name}” to “${after.name}”`;
    if (before.broader !== after.broader)
      return after.broader
        ? `Put the ${what} “${after.name}” under a broader one`
        : `The ${what} “${after.name}” stands under no other`;
    return before.heading === after.heading
      ? `Described the ${what} “${after.name}”`
      : `Put the ${what} “${after.name}” under ${after.heading ? `“${after.heading}”` : 'no heading'}`;
  },
  touches: (change) => subjects('tag', [change.tag]),
  makes: ({ tag, term: { before } }) => (before ? [] : subjects('tag', [tag])),
  sample(draw) {
    const tag = draw.pick([idOf(draw, draw.library.tags.keys()), idOf(draw, draw.library.tags.keys()), draw.id()]);
    const any = (): Term => ({
      name: draw.pick(['Red', 'red', 'Reeds', 'Groyne', 'Silt']),
      subject: draw.flag(),
      says: draw.pick(['', 'What stands in water']),
      heading: draw.pick(['', 'Colours']),
      broader: draw.pick([null, null, idOf(draw, draw.library.tags.keys())]),
    });
    const before = draw.library.tags.get(tag) ?? null;
    const after = draw.pick([any(), { ...any(), subject: before?.subject ?? false }, null]);
    return { do: 'term', tag, term: { before: draw.pick([before, before, any()]), after } };
  },
};

/** What a term comes to stand under with the change; undefined where that does not alter. */
export const movesUnder = ({ term: { before, after } }: TermChange): string | undefined =>
  after?.broader && after.broader !== before?.broader ? after.broader : undefined;

function isCircle(library: Library, change: TermChange): boolean {
  const met = new Set<string>();
  for (let at: string | null | undefined = movesUnder(change); at && !met.has(at); at = library.tags.get(at)?.broader) {
    if (at === change.tag) return true;
    met.add(at);
  }
  return false;
}

/**
 * Whether there is anything to write.
 * @param there whether another term has the name it is to have, and whether it would come to stand under itself
 * @throws Conflict when the term is another meanwhile, or is not to be so for what is there
 */
export function nameable(
  now: Term | null,
  there: { isTaken: boolean; isCircle: boolean },
  { tag, term: is }: TermChange,
): boolean {
  const moved = (what: string, before: unknown, after: unknown, now: unknown): Moved => ({ what, before, after, now });
  const subject = { kind: 'tag', id: tag } as const;
  if (!same(now, is.before)) throw new Conflict(subject, [moved('the tag', is.before, is.after, now)]);
  if (same(is.before, is.after)) return false;
  if (there.isTaken)
    throw new Conflict(subject, [moved(`what is called “${is.after!.name}”`, is.before, is.after, is.after)]);
  if (there.isCircle)
    throw new Conflict(subject, [moved(`what “${is.after!.name}” stands under`, is.before, is.after, now)]);
  return true;
}
