import { SHAPES, type MarkPlace, type Shape } from '../marks/index.ts';
import { isObject } from '../source/record.ts';
import { effectiveEdit, flipAll, joinedFields, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isFlag, isId, isOneOf, isOptional, isText, shaped } from './json.ts';
import { idOf, type Draw } from './draw.ts';

/** What can be edited of a mark. */
export interface MarkWords {
  gloss: string;
  sense: Id;
  shape: Shape;
  /** The member who alone sees it; null where all members do. */
  owner: Id | null;
  place: MarkPlace;
}

/** The gloss of a mark is written, its sense, shape or place is another, or it is shown to all members. */
export interface MarkEditChange {
  do: 'mark-edit';
  mark: Id;
  source: Id;
  fields: { [F in keyof MarkWords]?: BeforeAfter<NonNullable<MarkWords[F]>> };
  /** The member who alone sees the mark, before and after the change. */
  own?: Id;
}

const CALLED: Record<keyof MarkWords, string> = {
  gloss: 'the gloss',
  sense: 'the sense of the mark',
  shape: 'the shape of the mark',
  owner: 'who sees the mark',
  place: 'where the mark stands',
};
const isNumber = (v: unknown): boolean => typeof v === 'number' && Number.isFinite(v);
const isRect = (v: unknown): boolean => isObject(v) && [v.x0, v.y0, v.x1, v.y1].every(isNumber);
const isPlace = (v: unknown): boolean =>
  isObject(v) &&
  isId(v.file) &&
  Number.isInteger(v.page) &&
  isObject(v.quote) &&
  [v.quote.exact, v.quote.prefix, v.quote.suffix].every(isText) &&
  Array.isArray(v.rects) &&
  v.rects.every(isRect) &&
  isFlag(v.unplaced);
const FIELDS: Record<keyof MarkWords, (v: unknown) => boolean> = {
  gloss: isText,
  sense: isId,
  shape: isOneOf(...SHAPES),
  owner: isId,
  place: isPlace,
};
const isField = (f: string): f is keyof MarkWords => Object.hasOwn(FIELDS, f);

export const markEdit: Kind<MarkEditChange> = {
  do: 'mark-edit',
  version: 1,
  check: (json) =>
    shaped<MarkEditChange>(json, {
      mark: isId,
      source: isId,
      fields: (v) => isObject(v) && Object.entries(v).every(([f, x]) => isField(f) && isBeforeAfter(FIELDS[f])(x)),
      own: isOptional(isId),
    }),
  apply(library, change) {
    const known = library.marks.get(change.mark);
    const done = known ? editableMark(known, change) : null;
    if (!known || !done) return null;
    Object.assign(known, editedMark(known, done));
    return done;
  },
  invert: ({ fields, ...change }) => ({ ...change, fields: flipAll(fields as Record<string, BeforeAfter<never>>) }),
  joined(earlier, later) {
    // Showing one to all members is an entry of its own.
    if (earlier.fields.owner || later.fields.owner || earlier.fields.place || later.fields.place) return null;
    const fields = earlier.mark === later.mark && joinedFields(earlier.fields, later.fields);
    return fields ? { ...later, fields } : null;
  },
  isEmpty: (change) => Object.keys(change.fields).length === 0,
  describe({ fields: { gloss, shape, owner, place } }) {
    if (place) return 'Placed a mark anew';
    if (owner) return owner.after ? 'Kept a mark for oneself alone' : 'Showed a mark to all members';
    return gloss ? 'Changed a gloss' : shape ? 'Changed the shape of a mark' : 'Changed the sense of a mark';
  },
  touches: (change) => [
    { kind: 'source', id: change.source },
    { kind: 'mark', id: change.mark },
  ],
  ownOf: ({ own }) => own,
  sample(draw) {
    const { id, known, own } = drawMark(draw);
    const gloss = { before: draw.pick([known?.gloss ?? '', 'Another gloss']), after: draw.text() };
    const senses = [...draw.library.entries.keys()].flatMap((key) => /^sense (.*)/.exec(key)?.[1] ?? []);
    const sense = { before: known?.sense ?? draw.id(), after: idOf(draw, senses) };
    const shape = { before: known?.shape ?? 'highlight', after: draw.pick(SHAPES) };
    const owner = { before: known?.owner ?? null, after: draw.pick([draw.member, null]) };
    const now = known?.place ?? { file: draw.id(), page: 1, quote: NO_WORDS, rects: [], unplaced: false };
    const page = { ...now, page: draw.pick([1, 2, 3]), unplaced: draw.flag() };
    const place = { before: now, after: page };
    const fields = draw.pick([{ gloss }, { sense }, { gloss, sense }, { shape }, { owner }, { place }]);
    return { do: 'mark-edit', mark: id, source: known?.source ?? draw.id(), fields, ...(!('owner' in fields) && own) };
  },
};

const NO_WORDS = { exact: '', prefix: '', suffix: '' };

/** The mark after the edit. */
export const editedMark = (
  now: MarkWords,
  { fields: { gloss, sense, shape, owner, place } }: MarkEditChange,
): MarkWords => ({
  place: place?.after ?? now.place,
  gloss: gloss ? (gloss.after ?? '') : now.gloss,
  sense: sense?.after ?? now.sense,
  shape: shape?.after ?? now.shape,
  owner: owner ? owner.after : now.owner,
});

/**
 * The edit as far as it alters the mark, or null.
 * @throws Conflict where something of it is another meanwhile
 */
export const editableMark = (now: MarkWords, change: MarkEditChange): MarkEditChange | null =>
  effectiveEdit(
    change,
    { kind: 'mark', id: change.mark },
    (field) => now[field as keyof MarkWords],
    (field) => ({ what: CALLED[field as keyof MarkWords], field }),
  );

/** A mark the member sees, and whose own it is. */
export function drawMark(draw: Draw): { id: Id; known: (MarkWords & { source: Id }) | undefined; own: { own?: Id } } {
  const seen = [...draw.library.marks].filter(([, { owner }]) => !owner || owner === draw.member);
  const id = idOf(
    draw,
    seen.map(([one]) => one),
  );
  const known = draw.library.marks.get(id);
  return { id, known, own: known?.owner ? { own: known.owner } : {} };
}
