import { subjects, type Id, type Kind } from './kind.ts';
import { isFlag, isId, isIds, isText, shaped } from './json.ts';
import { idOf, someSources } from './draw.ts';
import { tie } from './library.ts';
import { countSources } from './words.ts';

/** A tag or a subject term is put on sources or taken from them. */
export interface TagChange {
  do: 'tag';
  tag: Id;
  name: string;
  subject: boolean;
  sources: Id[];
  present: boolean;
}

export const tag: Kind<TagChange> = {
  do: 'tag',
  version: 1,
  check: (json) =>
    shaped<TagChange>(json, { tag: isId, name: isText, subject: isFlag, sources: isIds, present: isFlag }),
  apply(library, change) {
    const sources = tie(library, change.sources, (s) => s.tags, change.tag, change.present);
    return sources.length ? { ...change, sources } : null;
  },
  invert: (change) => ({ ...change, present: !change.present }),
  isEmpty: (change) => change.sources.length === 0,
  describe(change) {
    const what = `${change.subject ? 'subject term' : 'tag'} “${change.name}”`;
    const n = countSources(change.sources.length);
    return change.present ? `Added the ${what} to ${n}` : `Removed the ${what} from ${n}`;
  },
  touches: (change) => [...subjects('source', change.sources), { kind: 'tag', id: change.tag }],
  sample(draw) {
    const id = idOf(draw, draw.library.tags.keys());
    const { name, subject } = draw.library.tags.get(id) ?? { name: draw.text(), subject: draw.flag() };
    return { do: 'tag', tag: id, name, subject, sources: someSources(draw), present: draw.flag() };
  },
};
