import type { Name } from '../../source/index.ts';
import type { Rule } from '../rule.ts';
import { inNames } from '../names.ts';

const INITIALS = /^(?:\p{Lu}\.?[\s-]?){1,4}$/u;

export const initials: Rule = {
  id: 'initials',
  severity: 'looks wrong',
  title: 'Initials where others have names',
  why: 'One person would be printed in two ways, and in some styles as two people.',
  find: ({ record, among }) =>
    among
      ? inNames(
          record,
          (name): Name | undefined => {
            if (!name.family || !name.given || !INITIALS.test(name.given)) return undefined;
            const full = among.givenOf(name.family, name.given);
            const letters = (t: string): string => [...t.matchAll(/(?<!\p{L})\p{Lu}/gu)].map((m) => m[0]).join('');
            return full && letters(full).startsWith(letters(name.given)) ? { ...name, given: full } : undefined;
          },
          (name) => `“${name.given} ${name.family}” has a full name in other records`,
          0.8,
        )
      : [],
};
