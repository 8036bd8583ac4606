import { isObject, same } from '../source/record.ts';
import { Conflict, flipAll, subjects, type BeforeAfter, type Id, type Kind, type Moved } from './kind.ts';
import { isBeforeAfter, isId, isText, shaped } from './json.ts';
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
}
export type CollectionField = keyof CollectionWords;

/** A collection gets another name, or something else is said of it. */
export interface CollectionEditChange {
  do: 'collection-edit';
  collection: Id;
  /** The name it had. */
  called: string;
  fields: { [F in CollectionField]?: BeforeAfter<NonNullable<CollectionWords[F]>> };
}

const FIELDS: Record<CollectionField, (v: unknown) => boolean> = {
  name: isText,
  says: isText,
  until: (v) => isObject(v) && isText(v.day) && isText(v.what),
  rule: isObject,
};
const CALLED: Record<CollectionField, string> = {
  name: 'the name of the collection',
  says: 'what is said of the collection',
  until: 'the end of the collection',
  rule: 'the rule of the collection',
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
    }),
  apply(library, change) {
    const known = library.collections.get(change.collection);
    const done = known?.present ? editableCollection(known, change) : null;
    if (!known || !done) return null;
    for (const [f, { after }] of Object.entries(done.fields)) Object.assign(known, { [f]: after });
    return done;
  },
  invert: ({ fields, ...change }) => ({ ...change, fields: flipAll(fields as Record<string, BeforeAfter<never>>) }),
  isEmpty: ({ fields }) => Object.values(fields).every((f) => same(f.before, f.after)),
  describe({ called, fields: { name, rule } }) {
    if (name) return `Renamed ${name.before} to ${name.after}`;
    if (rule) return rule.after ? `Gave ${called} a rule` : `Took the rule from ${called}`;
    return `Described ${called}`;
  },
  touches: (change) => subjects('collection', [change.collection]),
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
    const fields = draw.pick([{ name }, { says }, { rule, until }, { name, until }]);
    return { do: 'collection-edit', collection: id, called: known?.name ?? '', fields };
  },
};

/**
 * The edit as far as it alters the collection, or null.
 * @throws Conflict where something of it is another meanwhile
 */
export function editableCollection(now: CollectionWords, change: CollectionEditChange): CollectionEditChange | null {
  const fields = Object.entries(change.fields) as [CollectionField, BeforeAfter<unknown>][];
  const moved = fields.flatMap(([field, value]): Moved[] =>
    same(now[field], value.before) ? [] : [{ what: CALLED[field], ...value, now: now[field] }],
  );
  if (moved.length) throw new Conflict({ kind: 'collection', id: change.collection }, moved);
  const kept = fields.filter(([, { before, after }]) => !same(before, after));
  return kept.length ? { ...change, fields: Object.fromEntries(kept) } : null;
}
