import { isObject, same } from '../source/record.ts';
import { effectiveEdit, flipAll, joinedFields, subjects, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isId, isOptional, isText, shaped } from './json.ts';
import { idOf } from './draw.ts';

/** What is said of a collection; null where nothing is. */
export interface CollectionWords {
  name: string;
  /** What it is for. */
  says: string | null;
  /** Until when it is needed, and what then is: the last day as yyyy-mm-dd, "the hearing". */
  until: { day: string; what: string } | null;
  /** A question whose results belong to it besides what is filed by hand. */
  rule: Record<string, unknown> | null;
  /** The heading of the tags it allows; any where none is said. */
  allows: string | null;
  /** The one member whose own it is and who alone sees it; null where it is all members'. */
  owner: Id | null;
}
export type CollectionField = keyof CollectionWords;

/** A collection gets another name, or something else is said of it. */
export interface CollectionEditChange {
  do: 'collection-edit';
  collection: Id;
  /** The name it had. */
  called: string;
  fields: { [F in CollectionField]?: BeforeAfter<NonNullable<CollectionWords[F]>> };
  /** Of one that is a member's own before and after: whose. */
  own?: Id;
}

const FIELDS: Record<CollectionField, (v: unknown) => boolean> = {
  name: isText,
  says: isText,
  until: (v) => isObject(v) && isText(v.day) && isText(v.what),
  rule: isObject,
  allows: isText,
  owner: isId,
};
const CALLED: Record<CollectionField, string> = {
  name: 'the name of the collection',
  says: 'what is said of the collection',
  until: 'the end of the collection',
  rule: 'the rule of the collection',
  allows: 'the tags the collection allows',
  owner: 'who sees the collection',
};
export const COLLECTION_FIELDS = Object.keys(FIELDS) as CollectionField[];
const isField = (f: string): f is CollectionField => Object.hasOwn(FIELDS, f);

export const collectionEdit: Kind<CollectionEditChange> = {
  do: 'collection-edit',
  version: 1,
  check: (json) =>
    shaped<CollectionEditChange>(json, {
      collection: isId,
      called: isText,
      fields: (v) => isObject(v) && Object.entries(v).every(([f, x]) => isField(f) && isBeforeAfter(FIELDS[f])(x)),
      own: isOptional(isId),
    }),
  apply(library, change) {
    const known = library.collections.get(change.collection);
    const done = known?.present ? editableCollection(known, change) : null;
    if (!known || !done) return null;
    for (const [f, { after }] of Object.entries(done.fields)) Object.assign(known, { [f]: after });
    return done;
  },
  invert: ({ fields, ...change }) => ({ ...change, fields: flipAll(fields as Record<string, BeforeAfter<never>>) }),
  joined(earlier, later) {
    const isSame = earlier.collection === later.collection && earlier.own === later.own && !later.fields.owner;
    const fields = isSame && joinedFields(earlier.fields, later.fields);
    return fields ? { ...later, called: earlier.called, fields } : null;
  },
  isEmpty: ({ fields }) => Object.values(fields).every((f) => same(f.before, f.after)),
  describe({ called, fields: { name, rule, allows, owner } }) {
    if (owner) return owner.after ? `Kept ${called} for oneself alone` : `Showed ${called} to all members`;
    if (allows) return allows.after ? `${called} allows only tags of “${allows.after}”` : `${called} allows any tags`;
    if (name) return `Renamed ${name.before} to ${name.after}`;
    if (rule) return rule.after ? `Gave ${called} a rule` : `Took the rule from ${called}`;
    return `Described ${called}`;
  },
  touches: (change) => subjects('collection', [change.collection]),
  ownOf: ({ own }) => own,
  sample(draw) {
    const id = idOf(draw, draw.library.collections.keys());
    const known = draw.library.collections.get(id);
    const name = {
      before: draw.pick([known?.name ?? '', known?.name ?? '', 'Reeds']),
      after: draw.pick([draw.text(), 'Reeds']),
    };
    const says = { before: draw.pick([known?.says ?? null, 'For the brief']), after: draw.pick([draw.text(), null]) };
    const rule = { before: known?.rule ?? null, after: draw.pick([{ q: 'tide' }, null]) };
    const until = {
      before: known?.until ?? null,
      after: draw.pick([{ day: '2027-03-01', what: 'the hearing' }, null]),
    };
    const allows = { before: known?.allows ?? null, after: draw.pick(['Colours', null]) };
    const owner = { before: known?.owner ?? null, after: draw.pick([draw.member, null]) };
    const fields = draw.pick([{ name }, { says }, { rule, until }, { name, until }, { allows }, { owner }]);
    const own = !('owner' in fields) && known?.owner === draw.member ? draw.member : null;
    return { do: 'collection-edit', collection: id, called: known?.name ?? '', fields, ...(own && { own }) };
  },
};

/**
 * The edit as far as it alters the collection, or null.
 * @throws Conflict where something of it is another meanwhile
 */
export const editableCollection = (now: CollectionWords, change: CollectionEditChange): CollectionEditChange | null =>
  effectiveEdit(
    change,
    { kind: 'collection', id: change.collection },
    (field) => now[field as CollectionField],
    (field) => ({ what: CALLED[field as CollectionField] }),
  );
