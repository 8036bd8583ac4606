/**
 * The kinds of change, each a file. Everything that alters data is one of them: a small JSON object that can be applied,
 * inverted, described in a sentence and stored.
 */
import { isObject } from '../source/record.ts';
import { all, type AllChange } from './all.ts';
import { attach } from './attach.ts';
import { collection } from './collection.ts';
import { correct } from './correct.ts';
import { collectionEdit } from './collection-edit.ts';
import { edit } from './edit.ts';
import { entry } from './entry.ts';
import { file } from './file.ts';
import { fileEdit } from './file-edit.ts';
import { gloss } from './gloss.ts';
import { labelling } from './labelling.ts';
import { rate } from './rate.ts';
import { recheck } from './recheck.ts';
import { NotAChange } from './json.ts';
import type { Id, Kind, Stored, Subject } from './kind.ts';
import type { Library } from './library.ts';
import { mark } from './mark.ts';
import { markEdit } from './mark-edit.ts';
import { merge } from './merge.ts';
import { note } from './note.ts';
import { order } from './order.ts';
import { pageState } from './page-state.ts';
import { placement } from './placement.ts';
import { presence } from './presence.ts';
import { reading } from './reading.ts';
import { relate } from './relate.ts';
import { settle } from './settle.ts';
import { star } from './star.ts';
import { tag } from './tag.ts';
import { term } from './term.ts';

/** All kinds but that which holds others. */
export const SIMPLE = {
  presence,
  edit,
  tag,
  file,
  reading,
  star,
  collection,
  placement,
  'collection-edit': collectionEdit,
  order,
  attach,
  'file-edit': fileEdit,
  correct,
  'page-state': pageState,
  mark,
  'mark-edit': markEdit,
  gloss,
  note,
  merge,
  relate,
  settle,
  entry,
  labelling,
  rate,
  recheck,
  term,
};

type Simple = typeof SIMPLE;
export type SimpleChange = { [K in keyof Simple]: Simple[K] extends Kind<infer C> ? C : never }[keyof Simple];
export type Change = SimpleChange | AllChange;
export type ChangeKind = Change['do'];
export type ChangeOf<K extends ChangeKind> = Extract<Change, { do: K }>;

const kinds = (): { [K in ChangeKind]: Kind<ChangeOf<K>> } => ({ ...SIMPLE, all });
const kindOf = <C extends Change>(change: C): Kind<C> => kinds()[change.do] as unknown as Kind<C>;

export const CHANGE_KINDS = [...Object.keys(SIMPLE), 'all'] as ChangeKind[];

/** Any change of the kind; see `Draw`. */
export const sampleOf = (kind: ChangeKind): Kind<Change>['sample'] => (kinds()[kind] as unknown as Kind<Change>).sample;

/** See `Kind.apply`. */
export const applyChange = (library: Library, change: Change): Change | null => kindOf(change).apply(library, change);

/** The change that takes this one back; `invert(invert(c))` equals `c`. */
export const invert = (change: Change): Change => kindOf(change).invert(change);

/** Two edits of the same fields of the same thing as one, null where they are not that; see `Kind.joined`. */
export const joined = (earlier: Change, later: Change): Change | null =>
  earlier.do === later.do ? (kindOf(later).joined?.(earlier, later) ?? null) : null;

/** True when the change names nothing to alter. */
export const isEmpty = (change: Change): boolean => kindOf(change).isEmpty(change);

/** The change as a sentence in the past tense: "Filed 3 sources in Chapter 2". */
export const describe = (change: Change): string => kindOf(change).describe(change);

/** The subjects a change alters, each once, in the order they are first named. */
export const touches = (change: Change): Subject[] => kindOf(change).touches(change);

/** The sources a change touches, each once. */
export const sourcesOf = (change: Change): Id[] =>
  touches(change)
    .filter((s) => s.kind === 'source')
    .map((s) => s.id);

/** What the change brought into being. */
export const makes = (change: Change): Subject[] => kindOf(change).makes?.(change) ?? [];

/** The kinds of change it is made of, each once. */
export const kindsIn = (change: Change): ChangeKind[] =>
  change.do === 'all' ? [...new Set(change.changes.flatMap(kindsIn))] : [change.do];

/** The member whose own it is, where all of it is one member's own. */
export function ownerOf(change: Change): Id | undefined {
  if (change.do !== 'all') return kindOf(change).ownOf?.(change);
  const owners = new Set(change.changes.map(ownerOf));
  return owners.size === 1 ? [...owners][0] : undefined;
}

/**
 * The change as a member may see it: without the parts that are another member's own.
 * @param member undefined for what everyone may see
 * @returns null where nothing of it is left
 */
export function seenBy(change: Change, member: Id | undefined): Change | null {
  if (change.do === 'all') {
    const changes = change.changes.flatMap((c) => seenBy(c, member) ?? []);
    return changes.length || !change.changes.length ? { ...change, changes } : null;
  }
  const owner = ownerOf(change);
  return owner === undefined || owner === member ? change : null;
}

/** The members of whom the change has a part that is their own. */
export function ownersIn(change: Change): Id[] {
  if (change.do === 'all') return [...new Set(change.changes.flatMap(ownersIn))];
  const owner = ownerOf(change);
  return owner === undefined ? [] : [owner];
}

/** Kinds of change there once were, and what they are now. */
const FORMER: Record<string, (json: Record<string, unknown>) => Record<string, unknown>> = {
  rename: ({ collection: of, name }) => ({
    do: 'collection-edit',
    collection: of,
    called: isObject(name) ? name.before : undefined,
    fields: { name },
  }),
};

/** The change as it is stored. */
export function toJson(change: Change): Record<string, unknown> {
  const { version } = kindOf(change);
  const json = change.do === 'all' ? { ...change, changes: change.changes.map(toJson) } : { ...change };
  return version === 1 ? json : { ...json, v: version };
}

/**
 * A change as it was stored, of this version or an older one.
 * @throws NotAChange with what is wrong
 */
export function fromJson(stood: unknown, stored: Stored): Change {
  if (!isObject(stood)) throw new NotAChange('a change is an object');
  const json = Object.hasOwn(FORMER, String(stood.do)) ? FORMER[String(stood.do)]!(stood) : stood;
  const kind = Object.hasOwn(kinds(), String(json.do)) ? kinds()[json.do as ChangeKind] : undefined;
  if (!kind) throw new NotAChange(`no kind of change is called “${String(json.do)}”`);
  const { v = 1, ...rest } = json;
  if (typeof v !== 'number' || v > kind.version)
    throw new NotAChange(`a change of the kind “${kind.do}” of version ${String(v)} is not known here`);
  return kind.check(rest, stored);
}
