/** BibTeX and BibLaTeX: entry types and fields. Source: BibLaTeX manual (version 3), sections 2.1 and 2.2. */
import type { DateVariable, Kind, NameVariable, TextVariable } from '../source/index.ts';

export const KIND_OF_ENTRY: Record<string, Kind> = {
  article: 'article-journal', artwork: 'graphic', audio: 'song', bibnote: 'document', book: 'book', bookinbook: 'chapter',
  booklet: 'pamphlet', collection: 'book', commentary: 'legislation', conference: 'paper-conference', dataset: 'dataset',
  electronic: 'webpage', image: 'graphic', inbook: 'chapter', incollection: 'chapter', inproceedings: 'paper-conference',
  inreference: 'entry-encyclopedia', jurisdiction: 'legal_case', legal: 'treaty', legislation: 'legislation',
  letter: 'personal_communication', manual: 'book', mastersthesis: 'thesis', misc: 'document', movie: 'motion_picture',
  music: 'song', mvbook: 'book', mvcollection: 'book', mvproceedings: 'book', mvreference: 'book', online: 'webpage',
  patent: 'patent', performance: 'performance', periodical: 'periodical', phdthesis: 'thesis', proceedings: 'book',
  reference: 'book', report: 'report', review: 'review', software: 'software', standard: 'standard', suppbook: 'chapter',
  suppcollection: 'chapter', suppperiodical: 'article-journal', techreport: 'report', thesis: 'thesis',
  unpublished: 'manuscript', video: 'motion_picture', www: 'webpage',
};

const BIBLATEX_ENTRY: Partial<Record<Kind, string>> = {
  article: 'online', 'article-journal': 'article', 'article-magazine': 'article', 'article-newspaper': 'article',
  book: 'book', chapter: 'incollection', classic: 'book', dataset: 'dataset', 'entry-dictionary': 'inreference',
  'entry-encyclopedia': 'inreference', graphic: 'artwork', legal_case: 'jurisdiction', legislation: 'legislation',
  manuscript: 'unpublished', motion_picture: 'movie', pamphlet: 'booklet', 'paper-conference': 'inproceedings',
  patent: 'patent', performance: 'performance', periodical: 'periodical', personal_communication: 'letter',
  'post-weblog': 'online', post: 'online', report: 'report', review: 'review', 'review-book': 'review',
  software: 'software', song: 'music', standard: 'standard', thesis: 'thesis', treaty: 'legal', webpage: 'online',
};

const BIBTEX_ENTRY: Partial<Record<Kind, string>> = {
  'article-journal': 'article', 'article-magazine': 'article', 'article-newspaper': 'article', book: 'book',
  chapter: 'incollection', classic: 'book', 'entry-dictionary': 'incollection', 'entry-encyclopedia': 'incollection',
  manuscript: 'unpublished', pamphlet: 'booklet', 'paper-conference': 'inproceedings', report: 'techreport',
  review: 'article', 'review-book': 'article', thesis: 'phdthesis',
};

export function entryOfKind(kind: Kind, dialect: 'bibtex' | 'biblatex'): string {
  return (dialect === 'bibtex' ? BIBTEX_ENTRY : BIBLATEX_ENTRY)[kind] ?? 'misc';
}

export const NAME_FIELDS: Record<string, NameVariable> = {
  author: 'author', editor: 'editor', translator: 'translator', bookauthor: 'container-author', director: 'director',
  annotator: 'contributor', recipient: 'recipient', compiler: 'compiler',
};

export const DATE_FIELDS: Record<string, DateVariable> = {
  date: 'issued', origdate: 'original-date', eventdate: 'event-date', urldate: 'accessed', lastchecked: 'accessed',
};

export const TEXT_FIELDS: Record<string, TextVariable> = {
  title: 'title', shorttitle: 'title-short', journal: 'container-title', journaltitle: 'container-title',
  booktitle: 'container-title', shortjournal: 'container-title-short', maintitle: 'volume-title', series: 'collection-title',
  volume: 'volume', issue: 'issue', pages: 'page', publisher: 'publisher', organization: 'publisher', institution: 'publisher',
  school: 'publisher', address: 'publisher-place', location: 'publisher-place', edition: 'edition', chapter: 'chapter-number',
  doi: 'DOI', isbn: 'ISBN', issn: 'ISSN', url: 'URL', abstract: 'abstract', note: 'note', annote: 'annote', annotation: 'annote',
  language: 'language', langid: 'language', type: 'genre', howpublished: 'medium', pagetotal: 'number-of-pages',
  volumes: 'number-of-volumes', version: 'version', eventtitle: 'event-title', venue: 'event-place', origtitle: 'original-title',
  origpublisher: 'original-publisher', origlocation: 'original-publisher-place', pubstate: 'status', library: 'archive',
  part: 'part-number', pmid: 'PMID', pmcid: 'PMCID', court: 'authority', jurisdiction: 'jurisdiction', section: 'section',
};

/** The field a variable is written to; variables not here go to the remainder. */
export const FIELD_OF_VARIABLE: [TextVariable, { bibtex: string; biblatex: string }][] = [
  ['title', both('title')],
  ['title-short', both('shorttitle')],
  ['container-title', { bibtex: 'journal', biblatex: 'journaltitle' }],
  ['container-title-short', both('shortjournal')],
  ['collection-title', both('series')],
  ['volume', both('volume')],
  ['edition', both('edition')],
  ['chapter-number', both('chapter')],
  ['page', both('pages')],
  ['number-of-pages', both('pagetotal')],
  ['number-of-volumes', both('volumes')],
  ['publisher', both('publisher')],
  ['publisher-place', { bibtex: 'address', biblatex: 'location' }],
  ['event-title', both('eventtitle')],
  ['event-place', both('venue')],
  ['genre', both('type')],
  ['medium', both('howpublished')],
  ['version', both('version')],
  ['status', both('pubstate')],
  ['archive', both('library')],
  ['authority', both('court')],
  ['jurisdiction', both('jurisdiction')],
  ['original-title', both('origtitle')],
  ['DOI', both('doi')],
  ['ISBN', both('isbn')],
  ['ISSN', both('issn')],
  ['PMID', both('pmid')],
  ['URL', both('url')],
  ['language', { bibtex: 'language', biblatex: 'langid' }],
  ['abstract', both('abstract')],
  ['annote', both('annotation')],
  ['note', both('note')],
];

function both(name: string): { bibtex: string; biblatex: string } {
  return { bibtex: name, biblatex: name };
}

/** Fields whose value is taken as it stands, without LaTeX markup. */
export const VERBATIM = new Set(['doi', 'url', 'file', 'eprint', 'isbn', 'issn', 'pmid', 'csl', 'urn', 'pdf']);

/** What an entry takes from the one it refers to, where the name changes (BibLaTeX manual, appendix B). */
export const INHERITED_AS: Record<string, string> = { title: 'booktitle', subtitle: 'booksubtitle', author: 'bookauthor' };
export const NOT_INHERITED = new Set(['crossref', 'xref', 'xdata', 'shorttitle', 'keywords', 'abstract', 'label', 'doi', 'url', 'pages', 'ids', 'note', 'csl']);
