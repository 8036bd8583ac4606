import { isObject, same } from '../source/record.ts';
import { effectiveEdit, flipAll, joinedFields, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isId, isOptional, isText, shaped } from './json.ts';
import { idOf } from './draw.ts';

/** A gloss as it is: null instead of a text where it is not there, null instead of an owner where all members see it. */
export interface GlossWords {
  text: string | null;
  owner: Id | null;
}

/**
 * A gloss on the whole of a source is written, rewritten, removed, or shown to all members. Its row was written before, as a
 * gloss that is not present.
 */
export interface GlossChange {
  do: 'gloss';
  gloss: Id;
  source: Id;
  /** Null before or after: no text where the gloss is not there, no owner where all members see it. */
  fields: { text?: BeforeAfter<string>; owner?: BeforeAfter<Id> };
  /** The member who alone sees the gloss, before and after the change. */
  own?: Id;
}

const FIELDS = { text: isText, owner: isId };
const isField = (f: string): f is keyof typeof FIELDS => Object.hasOwn(FIELDS, f);
const CALLED = { text: 'the gloss', owner: 'who sees the gloss' };

export const gloss: Kind<GlossChange> = {
  do: 'gloss',
  version: 2,
  // The first version had its text alone.
  check: ({ text, fields = { text }, ...json }) =>
    shaped<GlossChange>(
      { ...json, fields },
      {
        gloss: isId,
        source: isId,
        fields: (v) => isObject(v) && Object.entries(v).every(([f, x]) => isField(f) && isBeforeAfter(FIELDS[f])(x)),
        own: isOptional(isId),
      },
    ),
  apply(library, change) {
    const known = library.glosses.get(change.gloss);
    const done = known && alterableGloss({ text: known.present ? known.text : null, owner: known.owner }, change);
    if (!known || !done) return null;
    const { text, owner } = done.fields;
    if (text) Object.assign(known, { present: text.after !== null, text: text.after ?? '' });
    if (owner) known.owner = owner.after;
    return done;
  },
  invert: ({ fields, ...change }) => ({ ...change, fields: flipAll(fields as Record<string, BeforeAfter<never>>) }),
  joined(earlier, later) {
    const [first, second] = [earlier.fields, later.fields];
    // Writing, removing and showing one are entries of their own.
    const isRewritten = first.text?.before != null && second.text?.after != null && !first.owner && !second.owner;
    const fields = isRewritten && earlier.gloss === later.gloss && joinedFields(first, second);
    return fields ? { ...later, fields } : null;
  },
  isEmpty: ({ fields }) => Object.values(fields).every((f) => same(f.before, f.after)),
  describe({ fields: { text, owner } }) {
    if (owner) return owner.after ? 'Kept a gloss for oneself alone' : 'Showed a gloss to all members';
    return text?.before == null ? 'Wrote a gloss' : text.after === null ? 'Removed a gloss' : 'Changed a gloss';
  },
  touches: (change) => [
    { kind: 'source', id: change.source },
    { kind: 'gloss', id: change.gloss },
  ],
  makes: ({ gloss: id, fields: { text } }) =>
    text?.before === null && text.after !== null ? [{ kind: 'gloss', id }] : [],
  ownOf: ({ own }) => own,
  sample(draw) {
    const seen = [...draw.library.glosses].filter(([, g]) => !g.owner || g.owner === draw.member);
    const id = idOf(
      draw,
      seen.map(([one]) => one),
    );
    const known = draw.library.glosses.get(id);
    const now = known?.present ? known.text : null;
    const text = { before: draw.pick([now, now, 'Another gloss']), after: draw.pick([null, draw.text()]) };
    const owner = { before: known?.owner ?? null, after: draw.pick([draw.member, null]) };
    const fields = draw.pick([{ text }, { text }, { owner }]);
    const own = !('owner' in fields) && known?.owner === draw.member ? draw.member : undefined;
    return { do: 'gloss', gloss: id, source: known?.source ?? draw.id(), fields, ...(own && { own }) };
  },
};

/**
 * The change as far as it alters the gloss, or null.
 * @throws Conflict when something of it has changed since
 */
export const alterableGloss = (now: GlossWords, change: GlossChange): GlossChange | null =>
  effectiveEdit(
    change,
    { kind: 'gloss', id: change.gloss },
    (field) => now[field as keyof GlossWords],
    (field) => ({ what: CALLED[field as keyof GlossWords], field }),
  );
