import { isBody, isOthers, parseName, type Name } from '../../source/index.ts';
import type { Rule } from '../rule.ts';
import { inNames } from '../names.ts';

/** "Family, Given": words that begin great, a comma between, initials or given names behind it. */
const INVERTED = /^(?:\p{Ll}+ ){0,3}\p{Lu}[\p{L}'’-]+(?: \p{Lu}[\p{L}'’-]+)?, (?:\p{Lu}[\p{L}'’.-]*\s?){1,4}$/u;

export const personAsBody: Rule = {
  id: 'person-as-body',
  severity: 'wrong',
  title: 'A person entered as a body',
  why: 'The name would not be turned round, shortened or sorted as the style wants it.',
  find: ({ record }) =>
    inNames(
      record,
      (name): Name | undefined => {
        const { literal } = name;
        if (!literal || isOthers(name) || isBody(literal) || !INVERTED.test(literal)) return undefined;
        return parseName(literal);
      },
      (name) => `“${name.literal}” is a person`,
      0.93,
    ),
};
