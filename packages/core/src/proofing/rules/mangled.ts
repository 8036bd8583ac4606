import { repairEncoding } from '../../repair/index.ts';
import { NAME_VARIABLES, type Name } from '../../source/index.ts';
import { inTexts, short, type Found, type Rule } from '../rule.ts';

export const mangled: Rule = {
  id: 'mangled',
  severity: 'looks wrong',
  title: 'Mangled characters',
  why: 'The text was read in another encoding than it was written in.',
  find({ record }) {
    const texts = inTexts(record, repairEncoding, (before) => `“${short(before)}” was read in another encoding`, 0.97);
    const names = NAME_VARIABLES.flatMap((field): Found[] => {
      const list = record[field];
      if (!list?.some((n) => Object.values(n).some((v: unknown) => typeof v === 'string' && /[\u00c2-\u00f4]/.test(v)))) return []; // prettier-ignore
      const after = list.map((n) => Object.fromEntries(Object.entries(n).map(([k, v]: [string, string]) => [k, repairEncoding(v)])) as Name); // prettier-ignore
      return JSON.stringify(after) !== JSON.stringify(list) ? [{ field, what: 'A name was read in another encoding', sure: 0.97, mend: { [field]: after! } }] : []; // prettier-ignore
    });
    return [...texts, ...names];
  },
};
