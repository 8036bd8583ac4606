import type { Name } from '../../source/index.ts';
import type { Rule } from '../rule.ts';
import { inNames } from '../names.ts';

/** "J. R.", "JR", "J-P." */
const INITIALS = /^(?:\p{Lu}\.[ -]?){1,4}$|^\p{Lu}{1,2}$/u;
const WORD = /^\p{Lu}\p{L}*\p{Ll}[\p{L}'’ -]*$/u;

export const namesSwapped: Rule = {
  id: 'names-swapped',
  severity: 'wrong',
  title: 'Family and given name swapped',
  why: 'It would be sorted under its initials, and shortened to them.',
  find: ({ record }) =>
    inNames(
      record,
      (name): Name | undefined =>
        name.family && name.given && INITIALS.test(name.family.trim()) && WORD.test(name.given) && name.given.length > 2
          ? { ...name, family: name.given, given: name.family }
          : undefined,
      (name) => `“${name.family}” stands as the family name of “${name.given}”`,
      0.92,
    ),
};
