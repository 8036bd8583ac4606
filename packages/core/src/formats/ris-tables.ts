/**
 * RIS: type codes and tags. Codes and meanings are those of the format's published specification (2001, and the
 * enlarged list of 2011) as databases use them (common practice where the two differ).
 */
import type { Kind, TextVariable } from '../source/index.ts';

export const KIND_OF_TYPE: Record<string, Kind> = {
  ABST: 'article-journal', ADVS: 'motion_picture', AGGR: 'dataset', ANCIENT: 'classic', ART: 'graphic', BILL: 'bill',
  BLOG: 'post-weblog', BOOK: 'book', CASE: 'legal_case', CHAP: 'chapter', CHART: 'figure', CLSWK: 'classic',
  COMP: 'software', CONF: 'paper-conference', CPAPER: 'paper-conference', CTLG: 'book', DATA: 'dataset',
  DBASE: 'dataset', DICT: 'entry-dictionary', EBOOK: 'book', ECHAP: 'chapter', EDBOOK: 'book', EJOUR: 'article-journal',
  ELEC: 'webpage', ENCYC: 'entry-encyclopedia', EQUA: 'figure', FIGURE: 'figure', GEN: 'document', GOVDOC: 'report',
  GRNT: 'document', HEAR: 'hearing', ICOMM: 'personal_communication', INPR: 'article-journal', INTV: 'interview',
  JFULL: 'periodical', JOUR: 'article-journal', LEGAL: 'regulation', MANSCPT: 'manuscript', MAP: 'map',
  MGZN: 'article-magazine', MPCT: 'motion_picture', MULTI: 'document', MUSIC: 'musical_score', NEWS: 'article-newspaper',
  PAMP: 'pamphlet', PAT: 'patent', PCOMM: 'personal_communication', POD: 'broadcast', PRESS: 'article-newspaper',
  RPRT: 'report', SER: 'book', SLIDE: 'graphic', SOUND: 'song', STAND: 'standard', STAT: 'legislation', THES: 'thesis',
  UNBILL: 'bill', UNPB: 'manuscript', UNPD: 'manuscript', VIDEO: 'motion_picture', WEB: 'webpage',
};

export const TYPE_OF_KIND: Partial<Record<Kind, string>> = {
  article: 'UNPB', 'article-journal': 'JOUR', 'article-magazine': 'MGZN', 'article-newspaper': 'NEWS', bill: 'BILL',
  book: 'BOOK', broadcast: 'POD', chapter: 'CHAP', classic: 'CLSWK', dataset: 'DATA', document: 'GEN',
  'entry-dictionary': 'DICT', 'entry-encyclopedia': 'ENCYC', figure: 'FIGURE', graphic: 'ART', hearing: 'HEAR',
  interview: 'INTV', legal_case: 'CASE', legislation: 'STAT', manuscript: 'MANSCPT', map: 'MAP',
  motion_picture: 'MPCT', musical_score: 'MUSIC', pamphlet: 'PAMP', 'paper-conference': 'CPAPER', patent: 'PAT',
  periodical: 'JFULL', personal_communication: 'PCOMM', post: 'BLOG', 'post-weblog': 'BLOG', regulation: 'LEGAL',
  report: 'RPRT', 'review-book': 'JOUR', review: 'JOUR', software: 'COMP', song: 'SOUND', standard: 'STAND',
  thesis: 'THES', webpage: 'ELEC',
};

/** Tags that mean the same for every type. Several tags may name one variable: the first that is filled counts. */
export const TEXT_TAGS: Record<string, TextVariable> = {
  AB: 'abstract', N2: 'abstract', AN: 'call-number', CN: 'call-number', CY: 'publisher-place', PP: 'publisher-place',
  DB: 'archive', DO: 'DOI', DI: 'DOI', ET: 'edition', ID: 'citation-key', IS: 'issue', LA: 'language', PB: 'publisher',
  ST: 'title-short', UR: 'URL', VL: 'volume', VO: 'volume', NV: 'number-of-volumes', TI: 'title', T1: 'title', CT: 'title',
  BT: 'container-title', JF: 'container-title', JO: 'container-title', T2: 'container-title', JA: 'container-title-short',
  J1: 'container-title-short', J2: 'container-title-short', T3: 'collection-title', DP: 'source', OP: 'original-title',
  RI: 'reviewed-title', SE: 'section', M3: 'genre',
};

