import { Conflict, flip, joinedFields, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isId, isText, shaped } from './json.ts';
import { idOf } from './draw.ts';

/**
 * A gloss on the whole of a source is written, rewritten or removed: its text before and after, null where it is not there.
 * What it is on was written before, as a gloss that is not present.
 */
export interface GlossChange {
  do: 'gloss';
  gloss: Id;
  source: Id;
  text: BeforeAfter<string>;
}

export const gloss: Kind<GlossChange> = {
  do: 'gloss',
  version: 1,
  check: (json) => shaped<GlossChange>(json, { gloss: isId, source: isId, text: isBeforeAfter(isText) }),
  apply(library, change) {
    const known = library.glosses.get(change.gloss);
    if (!known || !glossable(known.present ? known.text : null, change)) return null;
    const { after } = change.text;
    known.present = after !== null;
    known.text = after ?? '';
    return change;
  },
  invert: (change) => ({ ...change, text: flip(change.text) }),
  joined(earlier, later) {
    const { gloss: one } = later;
    // Writing and removing one are entries of their own.
    if (earlier.gloss !== one || earlier.text.before === null || later.text.after === null) return null;
    const both = joinedFields({ text: earlier.text }, { text: later.text });
    return both && { ...later, text: both.text };
  },
  isEmpty: ({ text }) => text.before === text.after,
  describe: ({ text: { before, after } }) =>
    before === null ? 'Wrote a gloss' : after === null ? 'Removed a gloss' : 'Changed a gloss',
  touches: (change) => [
    { kind: 'source', id: change.source },
    { kind: 'gloss', id: change.gloss },
  ],
  makes: ({ gloss: id, text }) => (text.before === null && text.after !== null ? [{ kind: 'gloss', id }] : []),
  sample(draw) {
    const id = idOf(draw, draw.library.glosses.keys());
    const known = draw.library.glosses.get(id);
    const now = known?.present ? known.text : null;
    return {
      do: 'gloss',
      gloss: id,
      source: known?.source ?? draw.id(),
      text: { before: draw.pick([now, now, 'Another gloss']), after: draw.pick([null, draw.text()]) },
    };
  },
};

/**
 * Whether there is anything to write.
 * @param now its text, null where it is not there
 * @throws Conflict when its text has changed since
 */
export function glossable(now: string | null, { gloss: id, text }: GlossChange): boolean {
  if (now !== text.before)
    throw new Conflict({ kind: 'gloss', id }, [{ what: 'the gloss', field: 'text', ...text, now }]);
  return text.before !== text.after;
}
