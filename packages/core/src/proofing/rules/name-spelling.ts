import type { Rule } from '../rule.ts';
import { inNames } from '../names.ts';

export const nameSpelling: Rule = {
  id: 'name-spelling',
  severity: 'looks wrong',
  title: 'One person in several spellings',
  why: 'One person would be printed in two ways, and stand twice among the people of the workspace.',
  find: ({ record, among }) =>
    among
      ? inNames(
          record,
          (name) => among.spellingOf(name),
          (name) => `“${name.given} ${name.family}” is written otherwise in most other records`,
          0.75,
        )
      : [],
};
