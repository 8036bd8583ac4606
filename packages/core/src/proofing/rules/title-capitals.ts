import { isShouting, sentenceCase } from '../case.ts';
import { caseOptions, inTexts, short, type Rule } from '../rule.ts';

/** Courts and genres may be abbreviations. */
const AS_THEY_ARE = new Set(['authority', 'genre']);
const TITLES = new Set(['title', 'title-short']);

export const titleCapitals: Rule = {
  id: 'title-capitals',
  severity: 'looks wrong',
  title: 'Title in capitals',
  why: 'It would be printed in capitals. Names and acronyms keep theirs where another source here, or a list of names, has them so.',
  find: (view) =>
    inTexts(
      view.record,
      (text, field) => {
        if (AS_THEY_ARE.has(field) || !isShouting(text) || !/\s/.test(text.trim())) return text;
        return TITLES.has(field) ? sentenceCase(text, caseOptions(view)) : eachGreat(text);
      },
      (before) => `“${short(before)}” is in capitals`,
      0.91,
    ),
};

/** Names of journals, series and publishers write their words great. */
const eachGreat = (text: string): string =>
  text.toLowerCase().replace(/(?<![\p{L}'’])\p{L}[\p{L}'’]*/gu, (w, at: number) => (at > 0 && /^(?:of|the|and|for|in|on|to|de|la|und|der|des|et)$/.test(w) ? w : w.charAt(0).toUpperCase() + w.slice(1))); // prettier-ignore
