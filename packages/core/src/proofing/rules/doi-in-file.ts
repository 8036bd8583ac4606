import { findDois } from '../../identifiers/index.ts';
import type { Rule } from '../rule.ts';

/** On the first page of an article its own DOI stands alone; those of what it cites come later. */
export const doiInFile: Rule = {
  id: 'doi-in-file',
  severity: 'wrong',
  title: 'DOI that stands in the file alone',
  why: 'The citation would be printed without it, though the work has one.',
  find({ record, files = [] }) {
    if (record.DOI) return [];
    const [doi, ...others] = findDois(files.map(({ begins }) => begins).join('\n'));
    return doi && !others.length
      ? [{ field: 'DOI', what: `Its file has the DOI ${doi}`, sure: 0.85, mend: { DOI: doi } }]
      : [];
  },
};
