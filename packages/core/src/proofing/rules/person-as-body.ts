import { isBody, isOthers, parseName, type Name } from '../../source/index.ts';
import type { English } from '../../english/index.ts';
import type { Rule } from '../rule.ts';
import { inNames } from '../names.ts';

/** "Family, Given": words that begin great, a comma between, initials or given names behind it. */
const INVERTED =
  /^(?:\p{Ll}+ ){0,3}\p{Lu}[\p{L}'’-]+(?: \p{Lu}[\p{L}'’-]+)?, \p{Lu}[\p{L}'’.-]*(?:\s\p{Lu}[\p{L}'’.-]*){0,3}$/u;
/** "J. R. Family", with a particle or without. */
const BY_INITIALS = /^(?:\p{Lu}\.[ -]?){1,3} ?(?:\p{Ll}+ ){0,3}\p{Lu}[\p{L}'’-]+$/u;
/** "Given M. Family". */
const IN_FULL = /^(\p{Lu}[\p{L}'’-]+)(?: \p{Lu}\.?| \p{Lu}[\p{L}'’-]+)? (?:\p{Ll}+ ){0,3}(\p{Lu}[\p{L}'’-]+)$/u;

/** No person has a longer name. */
const LONGEST = 200;

/** A given name in front, and behind no word that names a body, a thing or a place. */
function isPerson(literal: string, english: English | undefined): boolean {
  const m = english && IN_FULL.exec(literal);
  if (!m) return false;
  const [first, last] = [m[1]!.toLowerCase(), m[2]!.toLowerCase()];
  return english.isName(first) && !english.isPlain(first) && (english.isName(last) || !english.isCommon(last));
}

export const personAsBody: Rule = {
  id: 'person-as-body',
  severity: 'wrong',
  title: 'A person entered as a body',
  why: 'The name would not be turned round, shortened or sorted as the style wants it.',
  find: ({ record, english }) => {
    const of = (is: (literal: string) => boolean, sure: number) =>
      inNames(
        record,
        (name): Name | undefined => {
          const { literal } = name;
          return literal && literal.length <= LONGEST && !isOthers(name) && !isBody(literal) && is(literal)
            ? parseName(literal)
            : undefined;
        },
        (name) => `“${name.literal}” is a person`,
        sure,
      );
    const certain = of((l) => INVERTED.test(l) || BY_INITIALS.test(l), 0.93);
    return certain.length ? certain : of((l) => isPerson(l, english), 0.75);
  },
};
