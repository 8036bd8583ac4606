import { inTexts, type Rule } from '../rule.ts';

/** Most texts have none of it. */
const SUSPECT = /\s\s|[\t\n\r]|^\s|\s[,;:!?]|\.\.|,,|[.,;:\s]$/;

export const stopsAndSpaces: Rule = {
  id: 'stops-and-spaces',
  severity: 'looks wrong',
  title: 'Doubled or trailing stops and spaces',
  why: 'The style sets a stop of its own: two would stand there.',
  find: ({ record }) =>
    inTexts(
      record,
      (text, field) => {
        if (!SUSPECT.test(text)) return text;
        const spaced = text.replace(/[ \t\n\r]+/g, ' ').replace(/\s{2,}/g, ' ').replace(/ ([,;:!?])(?=\s|$)/g, '$1').replace(/(?<!\.)\.\.(?!\.)/g, '.').replace(/,,+/g, ',').trim(); // prettier-ignore
        // An abbreviation ends in a stop of its own: "Inc.", "Ltd.", "J. Phys."
        const ends = field === 'title' && /\p{L}{3,}\.$/u.test(spaced) && !/\b(?:etc|vol|rev|inc|ltd|esq|bros|dept|univ|jun|sen)\.$/i.test(spaced) && !/\.\S*\.$/.test(spaced); // prettier-ignore
        return (ends ? spaced.slice(0, -1) : spaced).replace(/[,;:]$/, '').trim();
      },
      (before, after) => (before.trim() === before && before.length - after.length === 1 ? `“${before.slice(-20)}” ends in a sign` : 'Signs or blanks are doubled'), // prettier-ignore
      0.95,
    ),
};
