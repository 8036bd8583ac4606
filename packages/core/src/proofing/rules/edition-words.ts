import type { Rule } from '../rule.ts';

const WORDS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth', 'eleventh', 'twelfth']; // prettier-ignore

export const editionWords: Rule = {
  id: 'edition-words',
  severity: 'looks wrong',
  title: 'Edition in words',
  why: 'Of a number a style makes “2nd ed.” in its own language (CSL 1.0.2, number variables).',
  find({ record: { edition } }) {
    const m =
      /^\s*(?:(\d+)(?:st|nd|rd|th|e|è?me|re|ª|º|a|o)?\.?|(\p{L}+))(?:\s+(?:[eé]d(?:ition|n|ición|izione)?|aufl(?:age)?|ausg(?:abe)?|utg(?:ave|åva)?)\.?)?\s*$/iu.exec(
        edition ?? '',
      );
    const n =
      m?.[1] ??
      (m?.[2] && WORDS.indexOf(m[2].toLowerCase()) >= 0 ? String(WORDS.indexOf(m[2].toLowerCase()) + 1) : undefined);
    return n && n !== edition
      ? [{ field: 'edition', what: `The edition is written “${edition}”`, sure: 0.96, mend: { edition: n } }]
      : [];
  },
};
