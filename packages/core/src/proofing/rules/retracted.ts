import { short, type Rule } from '../rule.ts';

/** As publishers mark the titles of what they withdrew (common practice). */
const MARK = /^\W*(?:retracted|withdrawn)(?:\s+(?:article|paper|chapter))?\W|\[(?:retracted|withdrawn)\]|\(retracted(?: article)?\)|^retraction (?:of|note)/i; // prettier-ignore

export const retracted: Rule = {
  id: 'retracted',
  severity: 'wrong',
  title: 'Retracted',
  why: 'Who cites it must say so.',
  find: ({ record: { title } }) =>
    title && MARK.test(title)
      ? [{ field: 'title', what: `“${short(title)}” says that it was withdrawn`, sure: 0.9 }]
      : [],
};
