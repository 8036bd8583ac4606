/**
 * What a kind of change must say of itself. One file a kind, listed in `registry.ts`; what the server does of it stands
 * beside the capability it belongs to, keyed by the same name.
 */
import { same } from '../source/record.ts';
import type { Draw } from './draw.ts';
import type { Library } from './library.ts';

export type Id = string;

/** What a change can touch. */
export const SUBJECT_KINDS = [
  'source',
  'collection',
  'tag',
  'mark',
  'gloss',
  'saved',
  'folder',
  'label',
  'sense',
  'heading',
  'outline',
  'note',
] as const;
export type SubjectKind = (typeof SUBJECT_KINDS)[number];
export interface Subject {
  kind: SubjectKind;
  id: Id;
}

export const subjects = (kind: SubjectKind, ids: Iterable<Id>): Subject[] => Array.from(ids, (id) => ({ kind, id }));

/** What a change of one value says of it; null where there was or is none. */
export interface BeforeAfter<T> {
  before: T | null;
  after: T | null;
}

/**
 * Edits of the same fields, as one: from what stood before the first to what stands after the second.
 * @returns null when the fields differ, when the second edit does not start where the first ended, or when together they change
 * nothing
 */
export function joinedFields<F extends Record<string, BeforeAfter<unknown> | undefined>>(
  earlier: F,
  later: F,
): F | null {
  const names = Object.keys(later).filter((f) => later[f]);
  if (names.length !== Object.values(earlier).filter(Boolean).length) return null;
  const out: Record<string, BeforeAfter<unknown>> = {};
  for (const name of names) {
    const [first, second] = [earlier[name], later[name]!];
    if (!first || !same(first.after, second.before)) return null;
    out[name] = { before: first.before, after: second.after };
  }
  return Object.values(out).every((v) => same(v.before, v.after)) ? null : (out as F);
}

export const flip = <T>(x: BeforeAfter<T>): BeforeAfter<T> => ({ before: x.after, after: x.before });
export const flipAll = <T>(x: Record<string, BeforeAfter<T>>): Record<string, BeforeAfter<T>> =>
  Object.fromEntries(Object.entries(x).map(([k, v]) => [k, flip(v)]));

/**
 * The values that are still what they were before, and are to be another; null where there are none. Someone's later
 * word is not taken back.
 * @param now the value a source has, null for none; undefined for a source that is not there
 */
export function standing<T>(
  values: Record<string, BeforeAfter<T>>,
  now: (id: Id) => T | null | undefined,
): Record<string, BeforeAfter<T>> | null {
  const still = Object.entries(values).filter(([id, v]) => now(id) === v.before && v.before !== v.after);
  return still.length ? Object.fromEntries(still) : null;
}

/**
 * Sets what is still as it was before: a field of each thing, none where it is null.
 * @param thing undefined for one that is not there
 * @returns the values that were set, null where there are none; see `standing`
 */
export function setStanding<K extends string, T>(
  values: Record<string, BeforeAfter<T>>,
  thing: (id: Id) => { [F in K]?: NoInfer<T> } | undefined,
  field: K,
): Record<string, BeforeAfter<T>> | null {
  const still = standing(values, (id) => {
    const known = thing(id);
    return known && (known[field] ?? null);
  });
  for (const [id, { after }] of Object.entries(still ?? {})) {
    const known: { [F in K]?: T | undefined } = thing(id)!;
    if (after === null) delete known[field];
    else known[field] = after;
  }
  return still;
}

/** A value that is not what the change takes for granted: someone else altered it since. */
export interface Moved {
  /** What moved, in words: "title", "the name of the collection". */
  what: string;
  /** The field, where it is one of a record. */
  field?: string;
  before: unknown;
  /** What the change would have set. */
  after: unknown;
  /** What stands there instead. */
  now: unknown;
}

/** Thrown when a change cannot be applied without taking back someone's later work; nothing of it was done. */
export class Conflict extends Error {
  constructor(
    readonly subject: Subject,
    readonly moved: Moved[],
  ) {
    super(`${moved.map((m) => m.what).join(', ')} changed since then`);
  }
}

/**
 * An edit as far as it alters anything, or null.
 * @param now the value a field has, null where it has none
 * @param says how a field is called where it has changed since; with `field` its values can be shown beside each other
 * @throws Conflict when a field has changed since
 */
export function effectiveEdit<C extends { fields: object }>(
  change: C,
  of: Subject,
  now: (field: string) => unknown,
  says: (field: string) => Pick<Moved, 'what' | 'field'>,
): C | null {
  const fields = Object.entries(change.fields) as [string, BeforeAfter<unknown>][];
  const moved = fields.flatMap(([field, { before, after }]): Moved[] =>
    same(now(field), before) ? [] : [{ ...says(field), before, after, now: now(field) }],
  );
  if (moved.length) throw new Conflict(of, moved);
  const kept = fields.filter(([, { before, after }]) => !same(before, after));
  return kept.length ? { ...change, fields: Object.fromEntries(kept) } : null;
}

/** What the reader of a stored change knows beside its JSON. */
export interface Stored {
  /** Who made it. */
  by: Id;
}

export interface Kind<C extends { do: string }> {
  do: C['do'];
  /** Of its JSON; an older one is brought up by `check`. One without a version is the first. */
  version: number;
  /**
   * The change as it was stored, of this version or an older one.
   * @throws NotAChange with the field that is wrong
   */
  check(json: Record<string, unknown>, stored: Stored): C;
  /**
   * Carries it out on the model, in place; what is unknown there is passed over.
   * @returns the change as far as it altered anything, or null
   * @throws Conflict before anything is altered
   */
  apply(library: Library, change: C): C | null;
  /** The change that takes this one back; `invert(invert(c))` equals `c`. */
  invert(change: C): C;
  /**
   * The two as one, where they are edits of the same fields of the same thing, one after the other; null where they are not.
   * Undoing the joined change undoes both edits.
   */
  joined?(earlier: C, later: C): C | null;
  /** True when it names nothing to alter. */
  isEmpty(change: C): boolean;
  /** A sentence in the past tense: "Filed 3 sources in Chapter 2". */
  describe(change: C): string;
  /** The subjects it alters, each once. */
  touches(change: C): Subject[];
  /** What it brings into being, that someone may work on before it is taken back. */
  makes?(change: C): Subject[];
  /** The member whose own it is, where no one else sees it. */
  ownOf?(change: C): Id | undefined;
  /** Any change of the kind, for property tests. */
  sample(draw: Draw): C;
}
