/**
 * What a record lacks for its citation. Which facts a kind is cited by is common practice, as the handbooks of style
 * teach it and the CSL styles print it: who, when, what, where, and how far to find it again.
 */
import { isOthers, yearOf, type Kind, type SourceRecord } from '../source/index.ts';

/** What may be lacking, with its name for a person; in the order they are told. */
export const LACKS = {
  title: 'title',
  author: 'author',
  initials: 'given names in full',
  issued: 'date',
  'container-title': 'where it was published',
  site: 'name of the site',
  volume: 'volume',
  page: 'pages',
  publisher: 'publisher',
  'publisher-place': 'place of publication',
  institution: 'university',
  authority: 'court',
  reporter: 'report, or number of the decision',
  archive: 'archive',
  archive_location: 'location in the archive',
  address: 'address',
  accessed: 'date of access',
  identifier: 'DOI or accession number',
} as const;
export type Lack = keyof typeof LACKS;

type Test = (r: SourceRecord) => boolean;

const WHO: (keyof SourceRecord)[] = ['author', 'editor', 'translator', 'director', 'composer', 'performer', 'compiler'];
const hasWho: Test = (r) => WHO.some((v) => (r[v] as unknown[] | undefined)?.length);
/** An article of the time before had no DOI to be given (common practice: registration of them began in 2000). */
const FIRST_DOIS = 2000;

/** True when the record has what the lack is the want of. */
const HAS: Record<Lack, Test> = {
  title: (r) => Boolean(r.title || r['title-short']),
  author: hasWho,
  initials: (r) => !(r.author ?? []).some((n) => !n.literal && !isOthers(n) && !n.given),
  issued: (r) => Boolean(r.issued),
  'container-title': (r) => Boolean(r['container-title']),
  site: (r) => Boolean(r['container-title'] || r.publisher),
  // Proceedings that stand as a journal often have none.
  volume: (r) =>
    Boolean(r.volume || r.issue || r.number || r.ISBN || /^proceedings\b/i.test(r['container-title'] ?? '')),
  page: (r) => Boolean(r.page || r['page-first'] || r.number),
  publisher: (r) => Boolean(r.publisher),
  'publisher-place': (r) => Boolean(r['publisher-place']),
  institution: (r) => Boolean(r.publisher || r.archive),
  authority: (r) => Boolean(r.authority || r.jurisdiction),
  reporter: (r) => Boolean((r['container-title'] && r.page) || r.number),
  archive: (r) => Boolean(r.archive),
  archive_location: (r) => Boolean(r.archive_location || r['call-number']),
  address: (r) => Boolean(r.URL || r.DOI),
  accessed: (r) => Boolean(r.accessed),
  identifier: (r) => Boolean(r.DOI || r.PMID || r.PMCID || (r.source && (r['call-number'] || r.archive_location))),
};

const BOOK: Lack[] = ['title', 'author', 'issued', 'publisher'];
const NEEDS: Partial<Record<Kind, Lack[]>> = {
  'article-journal': ['title', 'author', 'initials', 'issued', 'container-title', 'volume', 'page', 'identifier'],
  article: ['title', 'author', 'issued'],
  'article-magazine': ['title', 'issued', 'container-title'],
  'article-newspaper': ['title', 'issued', 'container-title'],
  book: BOOK,
  chapter: [...BOOK, 'container-title', 'page'],
  'paper-conference': ['title', 'author', 'issued', 'container-title'],
  'review-book': ['title', 'author', 'issued', 'container-title', 'volume', 'page'],
  thesis: ['title', 'author', 'issued', 'institution'],
  report: ['title', 'author', 'issued', 'publisher'],
  webpage: ['title', 'issued', 'site', 'address', 'accessed'],
  'post-weblog': ['title', 'author', 'issued', 'site', 'address', 'accessed'],
  legal_case: ['title', 'issued', 'authority', 'reporter'],
  legislation: ['title', 'issued'],
  regulation: ['title', 'issued'],
  manuscript: ['title', 'issued', 'archive', 'archive_location'],
  personal_communication: ['author', 'issued'],
  dataset: ['title', 'author', 'issued', 'publisher', 'address'],
  map: ['title', 'issued'],
  treaty: ['title', 'issued'],
  bill: ['title', 'issued', 'authority'],
  hearing: ['title', 'issued', 'authority'],
  patent: ['title', 'author', 'issued', 'authority'],
  standard: ['title', 'issued', 'publisher'],
  software: ['title', 'author', 'issued', 'address'],
  motion_picture: ['title', 'issued'],
  speech: ['title', 'author', 'issued'],
  document: ['title', 'author', 'issued'],
  periodical: ['title'],
};
const ANY: Lack[] = ['title', 'issued'];

/** What the record lacks, in the order it is told; nothing where it can be cited as it is. */
export function lacksOf(record: SourceRecord): Lack[] {
  const year = yearOf(record.issued);
  return (NEEDS[record.type] ?? ANY).filter(
    (lack) =>
      !HAS[lack](record) &&
      // What has no date at all is told so; its DOI would be asked of the young alone.
      !(lack === 'identifier' && (year === undefined || year < FIRST_DOIS)),
  );
}

/** "volume and pages missing", "date missing", or nothing. */
export function lacksInWords(lacks: readonly Lack[]): string {
  const words = lacks.map((l) => LACKS[l]);
  if (!words.length) return '';
  const list = words.length < 3 ? words.join(' and ') : `${words.slice(0, 2).join(', ')} and ${words.length - 2} more`;
  return `${list} missing`;
}
