import { NUMBER_STYLES, type NumberRun } from '../page-numbers/index.ts';
import { effectiveEdit, flipAll, subjects, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isId, isOneOf, isText, shaped } from './json.ts';
import { isObject } from '../source/record.ts';
import { idOf } from './draw.ts';
import type { LibraryFile, LibrarySource } from './library.ts';

/**
 * A file of a source gets another name, is the one that is opened first (null where none was said to be), or its pages are
 * numbered by hand (null where they are not).
 */
export interface FileEditChange {
  do: 'file-edit';
  source: Id;
  file: Id;
  /** The name it had. */
  called: string;
  fields: { name?: BeforeAfter<string>; main?: BeforeAfter<Id>; numbering?: BeforeAfter<NumberRun[]> };
}

interface FileWords {
  name: string;
  main: Id | null;
  numbering: NumberRun[] | null;
}

const CALLED = {
  name: 'the name of the file',
  main: 'the file that is opened first',
  numbering: 'the page numbers of the file',
};
const isRun = (v: unknown): boolean =>
  isObject(v) &&
  isOneOf(...NUMBER_STYLES)(v.style) &&
  isText(v.prefix) &&
  Number.isInteger(v.page) &&
  Number.isInteger(v.start);
const FIELDS = {
  name: isBeforeAfter(isText),
  main: isBeforeAfter(isId),
  numbering: isBeforeAfter((v) => Array.isArray(v) && v.every(isRun)),
};

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
    const done = source && file ? editableFile(wordsOf(source, file), change) : null;
    if (!source || !file || !done) return null;
    const { name, main, numbering } = done.fields;
    if (name) file.name = name.after ?? '';
    if (numbering?.after) file.numbering = numbering.after;
    else if (numbering) delete file.numbering;
    if (main?.after) source.main = main.after;
    else if (main) delete source.main;
    return done;
  },
  invert: ({ fields, ...change }) => ({ ...change, fields: flipAll(fields as Record<string, BeforeAfter<never>>) }),
  isEmpty: ({ fields }) => Object.keys(fields).length === 0,
  describe({ called, fields: { name, numbering } }) {
    if (numbering)
      return numbering.after ? `Numbered the pages of ${called}` : `Removed the page numbers set for ${called}`;
    return name ? `Renamed ${name.before} to ${name.after}` : `Made ${called} the one that is opened first`;
  },
  touches: (change) => subjects('source', [change.source]),
  sample(draw) {
    const source = idOf(draw, draw.library.sources.keys());
    const file = idOf(draw, draw.library.files.keys());
    const known = draw.library.files.get(file)?.name ?? '';
    const now = draw.library.sources.get(source)?.main ?? null;
    const name = { before: draw.pick([known, known, 'other.pdf']), after: draw.pick(['hours.pdf', 'gate.pdf']) };
    const main = { before: draw.pick([now, now, draw.id()]), after: draw.pick([file, null]) };
    const runs = [{ page: 1, style: 'decimal' as const, prefix: '', start: draw.pick([12, 201]) }];
    const numbering = { before: draw.library.files.get(file)?.numbering ?? null, after: draw.pick([runs, null]) };
    const fields = draw.pick([{ name }, { main }, { name, main }, { numbering }]);
    return { do: 'file-edit', source, file, called: known, fields };
  },
};

const wordsOf = (source: LibrarySource, file: LibraryFile): FileWords => ({
  name: file.name,
  main: source.main ?? null,
  numbering: file.numbering ?? null,
});

/**
 * The edit as far as it alters anything, or null.
 * @throws Conflict where name, numbering or main file are another meanwhile
 */
export const editableFile = (now: FileWords, change: FileEditChange): FileEditChange | null =>
  effectiveEdit(
    change,
    { kind: 'source', id: change.source },
    (field) => now[field as keyof FileWords],
    (field) => ({ what: CALLED[field as keyof FileWords] }),
  );
