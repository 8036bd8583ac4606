import { fold } from '../../words/index.ts';
import { withoutMarkup } from '../../source/index.ts';
import type { Rule } from '../rule.ts';

const LONG = 4;
/** Of fewer words nothing can be said, of fewer letters of a page neither. */
const LEAST_WORDS = 4;
const LEAST_LETTERS = 400;
const SHARE = 0.34;

const wordsOf = (text: string): Set<string> =>
  new Set((fold(withoutMarkup(text)).match(/\p{L}+/gu) ?? []).filter((w) => w.length >= LONG));

export const fileOfAnother: Rule = {
  id: 'file-of-another',
  severity: 'wrong',
  title: 'File of another work',
  why: 'One would quote from another work than the one that is cited.',
  find({ record: { title = '' }, files = [] }) {
    const wanted = wordsOf(title);
    if (wanted.size < LEAST_WORDS) return [];
    return files.flatMap(({ name, begins }) => {
      if (begins.length < LEAST_LETTERS) return [];
      // Words a line breaks are put together.
      const there = wordsOf(begins.replace(/-\s*\n\s*/g, ''));
      const n = [...wanted].filter((w) => there.has(w)).length;
      return n / wanted.size < SHARE
        ? [{ field: 'file', what: `The title is not on the first pages of “${name}”`, sure: 0.8 }]
        : [];
    });
  },
};
