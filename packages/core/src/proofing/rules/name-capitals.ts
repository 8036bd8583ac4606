import { isBody, type Name } from '../../source/index.ts';
import type { Rule } from '../rule.ts';
import { inNames } from '../names.ts';

/** "O’NEILL-SMITH" to "O’Neill-Smith"; "MCADAM" to "McAdam" (common practice). */
const lowered = (text: string): string =>
  text
    .toLowerCase()
    .replace(/(?<![\p{L}\p{M}])\p{L}/gu, (c) => c.toUpperCase())
    .replace(/\bMc(\p{L})/gu, (_, c: string) => `Mc${c.toUpperCase()}`);
const isLoud = (text: string): boolean =>
  /^[^\p{Ll}]*\p{Lu}{2}[^\p{Ll}]*$/u.test(text) && text.replace(/[^\p{L}]/gu, '').length > 3;

export const nameCapitals: Rule = {
  id: 'name-capitals',
  severity: 'looks wrong',
  title: 'Name in capitals',
  why: 'It would be printed in capitals among names that are not.',
  find: ({ record }) =>
    inNames(
      record,
      (name): Name | undefined => {
        if (!name.family || !name.given || !isLoud(name.family) || isBody(name.family)) return undefined;
        const given =
          name.given && isLoud(name.given.replace(/[^\p{L}]/gu, '')) && !/\./.test(name.given)
            ? lowered(name.given)
            : name.given;
        return { ...name, family: lowered(name.family), ...(given && { given }) };
      },
      (name) => `“${name.family}” is in capitals`,
      0.93,
    ),
};
