import { short, type Rule } from '../rule.ts';

export const otherScript: Rule = {
  id: 'other-script',
  severity: 'look',
  title: 'Title in another script',
  why: 'A reader who cannot read it needs it romanised: beside it, in square brackets (common practice).',
  find: ({ record: { title } }) =>
    title && /\p{L}{3}/u.test(title) && !/\p{Script=Latin}/u.test(title)
      ? [{ field: 'title', what: `“${short(title)}” has no romanised form`, sure: 0.9 }]
      : [],
};
