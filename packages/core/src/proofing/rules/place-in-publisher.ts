import type { Rule } from '../rule.ts';

export const placeInPublisher: Rule = {
  id: 'place-in-publisher',
  severity: 'looks wrong',
  title: 'Place inside the publisher',
  why: 'Styles that print no places would print this one.',
  find({ record: { publisher, 'publisher-place': place } }) {
    const m = /^(\p{Lu}[\p{L} .,'’-]{1,40}?)\s*:\s+(\p{Lu}.*)$/u.exec(publisher ?? '');
    if (!m || (place && place !== m[1])) return [];
    return [
      {
        field: 'publisher',
        what: `“${publisher}” has the place in it`,
        sure: 0.93,
        mend: { publisher: m[2]!, 'publisher-place': m[1]! },
      },
    ];
  },
};
