import { effectiveEdit, flip, joinedFields, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isId, isText, shaped } from './json.ts';
import { isObject } from '../source/record.ts';
import { idOf } from './draw.ts';

/** The gloss of a mark is written, or its sense is another. */
export interface MarkEditChange {
  do: 'mark-edit';
  mark: Id;
  source: Id;
  fields: { gloss?: BeforeAfter<string>; sense?: BeforeAfter<Id> };
}

interface MarkWords {
  gloss: string;
  sense: Id;
}

const CALLED = { gloss: 'the gloss', sense: 'the sense of the mark' };
const FIELDS = { gloss: isBeforeAfter(isText), sense: isBeforeAfter(isId) };

export const markEdit: Kind<MarkEditChange> = {
  do: 'mark-edit',
  version: 1,
  check: (json) =>
    shaped<MarkEditChange>(json, {
      mark: isId,
      source: isId,
      fields: (v) => isObject(v) && Object.entries(v).every(([f, x]) => FIELDS[f as keyof typeof FIELDS]?.(x) ?? false),
    }),
  apply(library, change) {
    const known = library.marks.get(change.mark);
    const done = known ? editableMark(known, change) : null;
    if (!known || !done) return null;
    if (done.fields.gloss) known.gloss = done.fields.gloss.after ?? '';
    if (done.fields.sense?.after) known.sense = done.fields.sense.after;
    return done;
  },
  invert: (change) => {
    const { gloss, sense } = change.fields;
    return { ...change, fields: { ...(gloss && { gloss: flip(gloss) }), ...(sense && { sense: flip(sense) }) } };
  },
  joined(earlier, later) {
    const fields = earlier.mark === later.mark && joinedFields(earlier.fields, later.fields);
    return fields ? { ...later, fields } : null;
  },
  isEmpty: (change) => Object.keys(change.fields).length === 0,
  describe: (change) => (change.fields.gloss ? 'Changed a gloss' : 'Changed the sense of a mark'),
  touches: (change) => [
    { kind: 'source', id: change.source },
    { kind: 'mark', id: change.mark },
  ],
  sample(draw) {
    const id = idOf(draw, draw.library.marks.keys());
    const known = draw.library.marks.get(id);
    const gloss = { before: draw.pick([known?.gloss ?? '', 'Another gloss']), after: draw.text() };
    const sense = { before: known?.sense ?? draw.id(), after: idOf(draw, draw.library.senses) };
    return {
      do: 'mark-edit',
      mark: id,
      source: known?.source ?? draw.id(),
      fields: draw.pick([{ gloss }, { sense }, { gloss, sense }]),
    };
  },
};

/**
 * The edit as far as it alters the mark, or null.
 * @throws Conflict where the gloss or the sense is another meanwhile
 */
export const editableMark = (now: MarkWords, change: MarkEditChange): MarkEditChange | null =>
  effectiveEdit(
    change,
    { kind: 'mark', id: change.mark },
    (field) => now[field as keyof MarkWords],
    (field) => ({ what: CALLED[field as keyof MarkWords], field }),
  );
