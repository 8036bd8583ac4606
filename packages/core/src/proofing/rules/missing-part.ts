import { LACKS, lacksOf, type Lack } from '../../intake/index.ts';
import type { Rule } from '../rule.ts';

/** The variables any of which makes up for a lack. */
const FIELDS: Record<Lack, string[]> = {
  title: ['title'],
  author: ['author', 'editor'],
  initials: [],
  issued: ['issued'],
  'container-title': ['container-title'],
  site: ['container-title', 'publisher'],
  volume: ['volume', 'issue'],
  page: ['page'],
  publisher: ['publisher'],
  'publisher-place': ['publisher-place'],
  institution: ['publisher'],
  authority: ['authority'],
  reporter: ['container-title', 'number'],
  archive: ['archive'],
  archive_location: ['archive_location'],
  address: ['URL'],
  accessed: ['accessed'],
  identifier: ['DOI', 'PMID', 'source'],
};

/** What a kind needs (common practice), as far as the style in use prints it. */
export const missingPart: Rule = {
  id: 'missing-part',
  severity: 'wrong',
  title: 'Part missing',
  why: 'The citation would be printed without it, and a reader could not find the work.',
  find({ record, uses }) {
    return lacksOf(record)
      .filter(
        (lack) => lack !== 'identifier' && FIELDS[lack].length > 0 && (!uses || FIELDS[lack].some((f) => uses.has(f))),
      )
      .map((lack) => ({ field: FIELDS[lack][0]!, what: `It has no ${LACKS[lack]}`, sure: 0.85 }));
  },
};
