import { isBody, type Name } from '../../source/index.ts';
import type { Rule } from '../rule.ts';
import { inNames } from '../names.ts';

export const bodyAsPerson: Rule = {
  id: 'body-as-person',
  severity: 'wrong',
  title: 'A body entered as a person',
  why: 'It would be sorted and shortened as if its last word were a family name.',
  find: ({ record }) =>
    inNames(
      record,
      (name): Name | undefined => {
        if (!name.family || name.literal) return undefined;
        const whole = [name.given, name['non-dropping-particle'], name.family].filter(Boolean).join(' ');
        const words = whole.split(/\s+/).length;
        return (words >= 3 || !name.given) && isBody(whole) ? { literal: whole } : undefined;
      },
      (name) => `“${name.given ? `${name.family}, ${name.given}` : name.family}” is a body`,
      0.93,
    ),
};
