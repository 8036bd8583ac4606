import { subjects, type Id, type Kind } from './kind.ts';
import { isFlag, isId, isText, shaped } from './json.ts';
import { idOf } from './draw.ts';
import { tie } from './library.ts';

/** A file is attached to a source or detached from it; the file is kept either way. */
export interface AttachChange {
  do: 'attach';
  source: Id;
  file: Id;
  name: string;
  present: boolean;
}

export const attach: Kind<AttachChange> = {
  do: 'attach',
  version: 1,
  check: (json) => shaped<AttachChange>(json, { source: isId, file: isId, name: isText, present: isFlag }),
  apply: (library, change) =>
    tie(library, [change.source], (s) => s.files, change.file, change.present).length ? change : null,
  invert: (change) => ({ ...change, present: !change.present }),
  isEmpty: () => false,
  describe: ({ present, name }) => `${present ? 'Attached' : 'Detached'} ${name}`,
  touches: (change) => subjects('source', [change.source]),
  sample(draw) {
    const file = idOf(draw, draw.library.files.keys());
    const source = idOf(draw, draw.library.sources.keys());
    return { do: 'attach', source, file, name: draw.library.files.get(file)?.name ?? '', present: draw.flag() };
  },
};
