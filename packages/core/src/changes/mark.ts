import { type Id, type Kind } from './kind.ts';
import { isFlag, isId, isOptional, shaped } from './json.ts';
import { drawMark } from './mark-edit.ts';

/** A mark appears or goes. What it marks was written before, as a mark that is not present. */
export interface MarkChange {
  do: 'mark';
  mark: Id;
  source: Id;
  present: boolean;
  /** The member who alone sees the mark. */
  own?: Id;
}

export const mark: Kind<MarkChange> = {
  do: 'mark',
  version: 1,
  check: (json) => shaped<MarkChange>(json, { mark: isId, source: isId, present: isFlag, own: isOptional(isId) }),
  apply(library, change) {
    const known = library.marks.get(change.mark);
    if (!known || known.present === change.present) return null;
    known.present = change.present;
    return change;
  },
  invert: (change) => ({ ...change, present: !change.present }),
  isEmpty: () => false,
  describe: ({ present }) => (present ? 'Added a mark' : 'Removed a mark'),
  touches: (change) => [
    { kind: 'source', id: change.source },
    { kind: 'mark', id: change.mark },
  ],
  ownOf: ({ own }) => own,
  makes: (change) => (change.present ? [{ kind: 'mark', id: change.mark }] : []),
  sample(draw) {
    const { id, known, own } = drawMark(draw);
    return { do: 'mark', mark: id, source: known?.source ?? draw.id(), present: draw.flag(), ...own };
  },
};
