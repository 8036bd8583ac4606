/** The variables of CSL 1.0.2 (appendix IV of the specification), by what they hold, and which a kind offers first. */
import type { Kind } from './kinds.ts';

export const NAME_VARIABLES = [
  'author',
  'chair',
  'collection-editor',
  'compiler',
  'composer',
  'container-author',
  'contributor',
  'curator',
  'director',
  'editor',
  'editorial-director',
  'executive-producer',
  'guest',
  'host',
  'illustrator',
  'interviewer',
  'narrator',
  'organizer',
  'original-author',
  'performer',
  'producer',
  'recipient',
  'reviewed-author',
  'script-writer',
  'series-creator',
  'translator',
] as const;

export const DATE_VARIABLES = [
  'accessed',
  'available-date',
  'event-date',
  'issued',
  'original-date',
  'submitted',
] as const;

/** Beside those of CSL: until when one may use the document, where a licence ends. */
export const OWN_DATE_VARIABLES = ['access-until'] as const;

export const TEXT_VARIABLES = [
  'abstract',
  'annote',
  'archive',
  'archive_collection',
  'archive_location',
  'archive-place',
  'authority',
  'call-number',
  'chapter-number',
  'citation-key',
  'citation-label',
  'collection-number',
  'collection-title',
  'container-title',
  'container-title-short',
  'dimensions',
  'division',
  'DOI',
  'edition',
  'event-place',
  'event-title',
  'genre',
  'ISBN',
  'ISSN',
  'issue',
  'jurisdiction',
  'language',
  'license',
  'medium',
  'note',
  'number',
  'number-of-pages',
  'number-of-volumes',
  'original-publisher',
  'original-publisher-place',
  'original-title',
  'page',
  'page-first',
  'part-number',
  'part-title',
  'PMCID',
  'PMID',
  'printing-number',
  'publisher',
  'publisher-place',
  'references',
  'reviewed-genre',
  'reviewed-title',
  'scale',
  'section',
  'source',
  'status',
  'supplement-number',
  'title',
  'title-short',
  'URL',
  'version',
  'volume',
  'volume-title',
  'year-suffix',
  // Beside those of CSL: where else a case is reported, as it is printed after the first report.
  'parallel',
] as const;

export type NameVariable = (typeof NAME_VARIABLES)[number];
export type DateVariable = (typeof DATE_VARIABLES)[number] | (typeof OWN_DATE_VARIABLES)[number];
export type TextVariable = (typeof TEXT_VARIABLES)[number];
export type Variable = NameVariable | DateVariable | TextVariable;

const names = new Set<string>(NAME_VARIABLES);
const dates = new Set<string>([...DATE_VARIABLES, ...OWN_DATE_VARIABLES]);
const texts = new Set<string>(TEXT_VARIABLES);

export const isNameVariable = (v: string): v is NameVariable => names.has(v);
export const isDateVariable = (v: string): v is DateVariable => dates.has(v);
export const isTextVariable = (v: string): v is TextVariable => texts.has(v);

export const isVariable = (v: string): v is Variable => isTextVariable(v) || isNameVariable(v) || isDateVariable(v);

const LABELS: Partial<Record<Variable | 'type' | 'keyword', string>> = {
  type: 'Kind',
  DOI: 'DOI',
  ISBN: 'ISBN',
  ISSN: 'ISSN',
  PMID: 'PMID',
  PMCID: 'PMCID',
  URL: 'URL',
  issued: 'Date',
  'container-title': 'Published in',
  'container-title-short': 'Abbreviated title of container',
  page: 'Pages',
  'collection-title': 'Series',
  'collection-number': 'Number in series',
  'publisher-place': 'Place',
  'event-title': 'Event',
  'event-place': 'Place of event',
  'citation-key': 'Citation key',
  authority: 'Court or authority',
  archive_location: 'Location in archive',
  archive_collection: 'Archive collection',
  'archive-place': 'Place of archive',
  'call-number': 'Call number',
  'title-short': 'Short title',
  source: 'Catalogue',
  parallel: 'Parallel citations',
};

/** The name of a variable as a person reads it: "Published in" for container-title. */
export function variableLabel(v: string): string {
  const known = LABELS[v as Variable];
  if (known) return known;
  const spaced = v.replace(/[-_]/g, ' ');
  return spaced.charAt(0).toUpperCase() + spaced.slice(1);
}

/** The label as it stands within a sentence: “published in”, but “DOI”. */
export function variableInWords(v: string): string {
  return variableLabel(v).replace(/^\p{Lu}(?!\p{Lu})/u, (first) => first.toLowerCase());
}

const COMMON: Variable[] = ['title', 'author', 'issued'];
const LAST: Variable[] = ['language', 'URL', 'accessed', 'access-until', 'abstract', 'note'];
const BOOKISH: Variable[] = [
  'editor',
  'translator',
  'edition',
  'volume',
  'number-of-volumes',
  'publisher',
  'publisher-place',
  'collection-title',
  'collection-number',
  'number-of-pages',
  'ISBN',
  'DOI',
];
const SERIAL: Variable[] = ['container-title', 'volume', 'issue', 'page', 'DOI', 'ISSN', 'PMID'];
const LAW: Variable[] = [
  'title-short',
  'authority',
  'jurisdiction',
  'container-title',
  'volume',
  'page',
  'parallel',
  'number',
  'section',
  'references',
];
const ARCHIVE: Variable[] = [
  'recipient',
  'genre',
  'archive',
  'archive_collection',
  'archive_location',
  'archive-place',
  'call-number',
  'dimensions',
];

const BY_KIND: Partial<Record<Kind, Variable[]>> = {
  'article-journal': SERIAL,
  'article-magazine': SERIAL,
  'article-newspaper': ['container-title', 'publisher-place', 'edition', 'section', 'page', 'ISSN'],
  article: ['archive', 'number', 'genre', 'publisher', 'version', 'DOI'],
  book: BOOKISH,
  classic: BOOKISH,
  chapter: ['container-title', 'page', 'container-author', 'chapter-number', ...BOOKISH],
  'paper-conference': ['container-title', 'event-title', 'event-place', 'page', ...BOOKISH],
  legal_case: LAW,
  legislation: [
    'title-short',
    'container-title',
    'volume',
    'number',
    'page',
    'section',
    'chapter-number',
    'jurisdiction',
    'references',
    'status',
  ],
  bill: [
    'title-short',
    'container-title',
    'volume',
    'number',
    'page',
    'section',
    'authority',
    'jurisdiction',
    'references',
  ],
  regulation: ['title-short', 'container-title', 'volume', 'number', 'page', 'section', 'authority', 'jurisdiction'],
  hearing: ['authority', 'container-title', 'number', 'page', 'publisher', 'event-title'],
  treaty: ['container-title', 'volume', 'page', 'original-date', 'authority'],
  patent: ['number', 'authority', 'jurisdiction', 'submitted', 'status', 'references'],
  manuscript: ARCHIVE,
  personal_communication: ARCHIVE,
  collection: ARCHIVE,
  pamphlet: ['publisher', 'publisher-place', 'number-of-pages', ...ARCHIVE],
  map: ['scale', 'edition', 'publisher', 'publisher-place', ...ARCHIVE],
  report: ['genre', 'number', 'collection-title', 'publisher', 'publisher-place', 'page', 'DOI', 'ISBN'],
  thesis: ['genre', 'publisher', 'publisher-place', 'number-of-pages', 'DOI'],
  webpage: ['container-title', 'publisher', 'genre'],
  post: ['container-title', 'genre'],
  'post-weblog': ['container-title', 'genre'],
  dataset: ['publisher', 'publisher-place', 'version', 'medium', 'DOI'],
  software: ['version', 'publisher', 'medium', 'DOI'],
  standard: ['number', 'authority', 'publisher', 'publisher-place', 'status'],
};

/** The variables a kind offers in the record, in the order of a catalogue card; filled ones of other kinds follow. */
export function variablesOf(kind: Kind): Variable[] {
  const own = BY_KIND[kind] ?? ['genre', 'container-title', 'publisher', 'publisher-place', 'medium', 'number', 'DOI'];
  return [...new Set([...COMMON, ...own, ...LAST])];
}
