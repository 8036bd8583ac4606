import { squeezed } from '../among.ts';
import { short, type Rule } from '../rule.ts';

export const containerSpelling: Rule = {
  id: 'container-spelling',
  severity: 'looks wrong',
  title: 'One journal in several spellings',
  why: 'Two works of one journal would be printed under two names.',
  find({ record, among }) {
    const own = record['container-title'];
    const usual = among?.containerOf(record);
    if (!own || !usual || usual === own) return [];
    return [{ field: 'container-title', what: `“${short(own)}” is “${short(usual)}” in other records`, sure: squeezed(own) === squeezed(usual) ? 0.92 : 0.7, mend: { 'container-title': usual } }]; // prettier-ignore
  },
};
