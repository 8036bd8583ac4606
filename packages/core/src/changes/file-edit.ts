import { effectiveEdit, flip, subjects, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isId, isText, shaped } from './json.ts';
import { isObject } from '../source/record.ts';
import { idOf } from './draw.ts';

/** A file of a source gets another name, or is the one that is opened first; null where none was said to be. */
export interface FileEditChange {
  do: 'file-edit';
  source: Id;
  file: Id;
  /** The name it had. */
  called: string;
  fields: { name?: BeforeAfter<string>; main?: BeforeAfter<Id> };
}

interface FileWords {
  name: string;
  main: Id | null;
}

const CALLED = { name: 'the name of the file', main: 'the file that is opened first' };
const FIELDS = { name: isBeforeAfter(isText), main: isBeforeAfter(isId) };

export const fileEdit: Kind<FileEditChange> = {
  do: 'file-edit',
  version: 1,
  check: (json) =>
    shaped<FileEditChange>(json, {
      source: isId,
      file: isId,
      called: isText,
      fields: (v) => isObject(v) && Object.entries(v).every(([f, x]) => FIELDS[f as keyof typeof FIELDS]?.(x) ?? false),
    }),
  apply(library, change) {
    const source = library.sources.get(change.source);
    const file = library.files.get(change.file);
    const done = source && file ? editableFile({ name: file.name, main: source.main ?? null }, change) : null;
    if (!source || !file || !done) return null;
    const { name, main } = done.fields;
    if (name) file.name = name.after ?? '';
    if (main?.after) source.main = main.after;
    else if (main) delete source.main;
    return done;
  },
  invert: (change) => {
    const { name, main } = change.fields;
    return { ...change, fields: { ...(name && { name: flip(name) }), ...(main && { main: flip(main) }) } };
  },
  isEmpty: ({ fields }) => Object.keys(fields).length === 0,
  describe: ({ called, fields: { name } }) =>
    name ? `Renamed ${name.before} to ${name.after}` : `Made ${called} the one that is opened first`,
  touches: (change) => subjects('source', [change.source]),
  sample(draw) {
    const source = idOf(draw, draw.library.sources.keys());
    const file = idOf(draw, draw.library.files.keys());
    const known = draw.library.files.get(file)?.name ?? '';
    const now = draw.library.sources.get(source)?.main ?? null;
    const name = { before: draw.pick([known, known, 'other.pdf']), after: draw.pick(['hours.pdf', 'gate.pdf']) };
    const main = { before: draw.pick([now, now, draw.id()]), after: draw.pick([file, null]) };
    return { do: 'file-edit', source, file, called: known, fields: draw.pick([{ name }, { main }, { name, main }]) };
  },
};

/**
 * The edit as far as it alters anything, or null.
 * @throws Conflict where name or main file are another meanwhile
 */
export const editableFile = (now: FileWords, change: FileEditChange): FileEditChange | null =>
  effectiveEdit(
    change,
    { kind: 'source', id: change.source },
    (field) => now[field as keyof FileWords],
    (field) => ({ what: CALLED[field as keyof FileWords] }),
  );
