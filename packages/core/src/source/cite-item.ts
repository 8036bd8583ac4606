/** What a citation says of a source beside the source itself: where in it, and words around it. */

/** What a locator may be of, with the name it has for a person (CSL 1.0.2, appendix II: locators). */
export const LOCATORS = {
  page: 'Page',
  paragraph: 'Paragraph',
  section: 'Section',
  chapter: 'Chapter',
  article: 'Article',
  'article-locator': 'Article of a text',
  act: 'Act',
  appendix: 'Appendix',
  book: 'Book',
  canon: 'Canon',
  column: 'Column',
  elocation: 'Electronic location',
  equation: 'Equation',
  figure: 'Figure',
  folio: 'Folio',
  issue: 'Issue',
  line: 'Line',
  note: 'Note',
  opus: 'Opus',
  part: 'Part',
  rule: 'Rule',
  scene: 'Scene',
  'sub-verbo': 'Headword',
  supplement: 'Supplement',
  table: 'Table',
  timestamp: 'Time',
  'title-locator': 'Title of a text',
  verse: 'Verse',
  version: 'Version',
  volume: 'Volume',
} as const;
export type LocatorKind = keyof typeof LOCATORS;
export const LOCATOR_KINDS = Object.keys(LOCATORS) as LocatorKind[];

/** How the author is named: as the style does, not at all, or before the citation as part of the sentence. */
export const AUTHOR_FORMS = ['as usual', 'suppressed', 'in the text'] as const;
export type AuthorForm = (typeof AUTHOR_FORMS)[number];

export interface CiteItem {
  /** The source. */
  id: string;
  /** "12", "12–14", "33". */
  locator?: string;
  /** What the locator is of; a page where it is not said. */
  label?: LocatorKind;
  /** Words before and after: "see", "with a map". */
  before?: string;
  after?: string;
  author?: AuthorForm;
}
