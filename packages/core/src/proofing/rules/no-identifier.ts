import { lacksOf } from '../../intake/index.ts';
import type { Rule } from '../rule.ts';

/** Not every article has a DOI; where it was found, and under which number, stands in for one. */
export const noIdentifier: Rule = {
  id: 'no-identifier',
  severity: 'look',
  title: 'No DOI, nor where it was found',
  why: 'A reader finds an article by its DOI; without one, by the database and the number it has there.',
  find({ record, uses }) {
    if (uses && !uses.has('DOI')) return [];
    return lacksOf(record).includes('identifier')
      ? [{ field: 'DOI', what: 'It has no DOI, and no database with an accession number', sure: 0.5 }]
      : [];
  },
};
