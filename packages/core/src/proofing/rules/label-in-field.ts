import type { Found, Mend, Rule } from '../rule.ts';

const LABELS: Record<string, RegExp> = {
  page: /^\s*(?:pp?|pages?|s|seiten?)\.?\s*(?=[\divxlcA-Z]*\d|[ivxlc]+\b)/i,
  volume: /^\s*(?:vol(?:ume)?s?|bd|band|tome?|jahrgang|jg|v)\.?\s*(?=\d|[IVXLC]+\b)/i,
  issue: /^\s*(?:#|n°|№|(?:nos?|nr|num(?:ber)?|issues?|iss|heft|hefte|h|n)\.?)\s*(?=\d)/i,
};

export const labelInField: Rule = {
  id: 'label-in-field',
  severity: 'looks wrong',
  title: 'Label inside a number',
  why: 'Styles print “pp.”, “vol.” and “no.” themselves: it would stand there twice.',
  find: ({ record }) =>
    Object.entries(LABELS).flatMap(([field, label]): Found[] => {
      const before = (record as unknown as Record<string, unknown>)[field];
      if (typeof before !== 'string' || !label.test(before)) return [];
      const mend: Mend = { [field]: before.replace(label, '').trim() };
      return [{ field, what: `“${before}” has its label in it`, sure: 0.96, mend }];
    }),
};
