import { isShouting, isTitleCase, sentenceCase } from '../case.ts';
import { caseOptions, short, type Rule } from '../rule.ts';
import { TITLE_CASE } from '../uses.ts';

const GERMAN = /\b(?:der|die|das|und|für|über|eine?r?|im|zur|zum|von|des|den|nicht|auf)\b/i;

const MEETING =
  /\bProceedings of\b|\b(?:Annual|International|National|\d+(?:st|nd|rd|th)|Congress|Joint)\b.*\b(?:Conference|Symposium|Workshop|Congress|Meeting)\b/;

/** Styles that want title case make it themselves of sentence case; the reverse cannot be done without knowing names. */
export const titleCase: Rule = {
  id: 'title-case',
  severity: 'looks wrong',
  title: 'Title with most words great',
  why: 'Styles that print sentence case would keep the capitals; those that want title case set them themselves.',
  find(view) {
    const { record, uses } = view;
    // Without a style nobody knows which case is wanted.
    if (!uses || uses.has(TITLE_CASE)) return [];
    const { title, language, type } = record;
    if (!title || isShouting(title) || !isTitleCase(title) || type === 'legal_case' || type === 'legislation')
      return [];
    // The name of a meeting is a name, all of it.
    if (MEETING.test(title)) return [];
    if ((language && !/^en/i.test(language)) || GERMAN.test(title)) return [];
    const after = sentenceCase(title, caseOptions(view));
    return after === title
      ? []
      : [{ field: 'title', what: `“${short(title)}” writes most words great`, sure: 0.6, mend: { title: after } }];
  },
};
