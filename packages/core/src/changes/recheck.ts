import { flipAll, setStanding, subjects, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isId, isRecordOf, isText, shaped } from './json.ts';
import { someSources } from './draw.ts';
import { countSources } from './words.ts';

/** Sources are to be checked again, each for a reason; null where they are not. */
export interface RecheckChange {
  do: 'recheck';
  reasons: Record<Id, BeforeAfter<string>>;
}

export const recheck: Kind<RecheckChange> = {
  do: 'recheck',
  version: 1,
  check: (json) => shaped<RecheckChange>(json, { reasons: isRecordOf(isId, () => isBeforeAfter(isText)) }),
  apply(library, change) {
    const reasons = setStanding(change.reasons, (id) => library.sources.get(id), 'recheck');
    return reasons && { ...change, reasons };
  },
  invert: (change) => ({ ...change, reasons: flipAll(change.reasons) }),
  isEmpty: (change) => Object.values(change.reasons).every((r) => r.before === r.after),
  describe({ reasons }) {
    const all = Object.values(reasons);
    const n = countSources(all.length);
    return all.every((r) => r.after === null) ? `${n} checked` : `${n} to be checked again`;
  },
  touches: (change) => subjects('source', Object.keys(change.reasons)),
  sample(draw) {
    const reasons = someSources(draw).map((id) => {
      const now = draw.library.sources.get(id)?.recheck ?? null;
      const after = draw.pick([null, 'the page number', draw.text()]);
      return [id, { before: draw.pick([now, now, 'the year']), after }] as const;
    });
    return { do: 'recheck', reasons: Object.fromEntries(reasons) };
  },
};
