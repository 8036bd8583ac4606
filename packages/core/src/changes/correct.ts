import { Conflict, flip, subjects, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isId, isText, shaped } from './json.ts';
import { same } from '../source/record.ts';
import { idOf } from './draw.ts';

/** A line of a page reads otherwise than it was recognised; null where it reads as it was. */
export interface CorrectChange {
  do: 'correct';
  source: Id;
  file: Id;
  /** Counted from 1. */
  page: number;
  /** Counted from 0, among the lines that were recognised. */
  line: number;
  text: BeforeAfter<string>;
}

export const lineKey = ({ file, page, line }: Pick<CorrectChange, 'file' | 'page' | 'line'>): string =>
  `${file} ${page} ${line}`;

const isCount = (v: unknown): boolean => Number.isInteger(v) && (v as number) >= 0;

export const correct: Kind<CorrectChange> = {
  do: 'correct',
  version: 1,
  check: (json) =>
    shaped<CorrectChange>(json, {
      source: isId,
      file: isId,
      page: isCount,
      line: isCount,
      text: isBeforeAfter(isText),
    }),
  apply(library, change) {
    if (!library.files.has(change.file)) return null;
    const key = lineKey(change);
    if (!correctable(library.corrections.get(key) ?? null, change)) return null;
    if (change.text.after === null) library.corrections.delete(key);
    else library.corrections.set(key, change.text.after);
    return change;
  },
  invert: (change) => ({ ...change, text: flip(change.text) }),
  joined(earlier, later) {
    if (lineKey(earlier) !== lineKey(later) || earlier.text.after !== later.text.before) return null;
    const text = { before: earlier.text.before, after: later.text.after };
    return text.before === text.after ? null : { ...later, text };
  },
  isEmpty: ({ text }) => same(text.before, text.after),
  describe: ({ page, text }) =>
    text.after === null
      ? `Put back a line as it was recognised, on page ${page}`
      : `Corrected a line on page ${page} to “${text.after}”`,
  touches: (change) => subjects('source', [change.source]),
  sample(draw) {
    const file = idOf(draw, draw.library.files.keys());
    const at = { file, page: 1, line: 0 };
    const now = draw.library.corrections.get(lineKey(at)) ?? null;
    const text = {
      before: draw.pick([now, now, 'Other words']),
      after: draw.pick([null, 'The keeper shut it', 'At dusk']),
    };
    return { do: 'correct', source: idOf(draw, draw.library.sources.keys()), ...at, text };
  },
};

/**
 * Whether there is anything to write.
 * @throws Conflict where the line reads otherwise meanwhile
 */
export function correctable(now: string | null, change: CorrectChange): boolean {
  const { text, source, page } = change;
  if (now !== text.before)
    throw new Conflict({ kind: 'source', id: source }, [
      { what: `the line on page ${page}`, field: 'text', ...text, now },
    ]);
  return text.before !== text.after;
}
