import { normaliseIsbn, normaliseIssn } from '../../identifiers/index.ts';
import { short, type Found, type Rule } from '../rule.ts';

/** A list of numbers as records have it; words in brackets beside them are left out. */
const numbersIn = (text: string): string[] =>
  text.replace(/\([^)]*\)/g, ' ').split(/[,;]|\s{2,}|\s(?=97[89]|\d{4}-\d{3}[\dX]\b)/).map((t) => t.trim()).filter((t) => /\d/.test(t)); // prettier-ignore

export const checkDigit: Rule = {
  id: 'check-digit',
  severity: 'wrong',
  title: 'Number with a wrong check digit',
  why: 'A wrong ISBN or ISSN finds another book or journal, or none (ISO 2108, ISO 3297).',
  find({ record }) {
    const of = (field: 'ISBN' | 'ISSN', is: (t: string) => string | undefined): Found[] =>
      numbersIn(record[field] ?? '')
        .filter((n) => !is(n.replace(/^e?iss?bn:?\s*/i, '')))
        .map((n) => ({ field, what: `${field} “${short(n)}” has a wrong check digit or form`, sure: 0.95 }));
    return [...of('ISBN', normaliseIsbn), ...of('ISSN', normaliseIssn)];
  },
};
