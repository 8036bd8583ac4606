import { subjects, type Id, type Kind } from './kind.ts';
import { isFlag, isId, isIds, isText, shaped } from './json.ts';
import { idOf, someSources } from './draw.ts';
import { tie } from './library.ts';
import { countSources } from './words.ts';

/** A label of the workspace is put on sources or taken from them. */
export interface LabellingChange {
  do: 'labelling';
  label: Id;
  name: string;
  sources: Id[];
  present: boolean;
}

export const labelling: Kind<LabellingChange> = {
  do: 'labelling',
  version: 1,
  check: (json) => shaped<LabellingChange>(json, { label: isId, name: isText, sources: isIds, present: isFlag }),
  apply(library, change) {
    const sources = tie(library, change.sources, (s) => s.labels, change.label, change.present);
    return sources.length ? { ...change, sources } : null;
  },
  invert: (change) => ({ ...change, present: !change.present }),
  isEmpty: (change) => change.sources.length === 0,
  describe({ name, sources, present }) {
    const n = countSources(sources.length);
    return present ? `Labelled ${n} “${name}”` : `Took the label “${name}” from ${n}`;
  },
  touches: (change) => [...subjects('source', change.sources), { kind: 'label', id: change.label }],
  sample(draw) {
    const keys = [...draw.library.entries.keys()].filter((k) => k.startsWith('label '));
    const label = idOf(
      draw,
      keys.map((k) => k.slice('label '.length)),
    );
    const name = draw.library.entries.get(`label ${label}`)?.name ?? draw.text();
    return { do: 'labelling', label, name, sources: someSources(draw), present: draw.flag() };
  },
};
