/** What the columns of a table hold: told by their headings, or said by a person. */
import {
  DATE_VARIABLES,
  NAME_VARIABLES,
  OWN_DATE_VARIABLES,
  TEXT_VARIABLES,
  variableLabel,
  type Variable,
} from '../../source/index.ts';

/** A field of a record, its subject terms, or nothing: such a column is kept beside the record. */
export type ColumnField = Variable | 'type' | 'keyword' | 'custom' | '';

/** Which field each heading is, as it stands in the table. */
export type Columns = Record<string, ColumnField>;

/** What a column may be said to be, in the order a person looks for it. */
export const COLUMN_FIELDS: { field: Exclude<ColumnField, '' | 'custom'>; label: string }[] = [
  ...([
    'title',
    'author',
    'issued',
    'type',
    'container-title',
    'volume',
    'issue',
    'page',
    'publisher',
    'DOI',
    'URL',
    'abstract',
    'keyword',
  ] as const),
  ...[...NAME_VARIABLES, ...DATE_VARIABLES, ...OWN_DATE_VARIABLES, ...TEXT_VARIABLES].sort((a, b) =>
    variableLabel(a).localeCompare(variableLabel(b), 'en'),
  ),
]
  .filter((f, i, all) => all.indexOf(f) === i)
  .map((field) => ({ field, label: field === 'keyword' ? 'Subject terms' : variableLabel(field) }));

/** Headings as databases and spreadsheets have them (common practice), without blanks, signs and case. */
const HEADINGS: Record<string, ColumnField> = {
  articletitle: 'title',
  documenttitle: 'title',
  paper: 'title',
  name: 'title',
  authors: 'author',
  authornames: 'author',
  authorfullnames: 'author',
  creator: 'author',
  creators: 'author',
  by: 'author',
  editors: 'editor',
  translators: 'translator',
  year: 'issued',
  publicationyear: 'issued',
  publicationdate: 'issued',
  pubyear: 'issued',
  datepublished: 'issued',
  published: 'issued',
  date: 'issued',
  dateaccessed: 'accessed',
  accessdate: 'accessed',
  journal: 'container-title',
  journaltitle: 'container-title',
  publicationtitle: 'container-title',
  sourcetitle: 'container-title',
  publication: 'container-title',
  booktitle: 'container-title',
  container: 'container-title',
  journalabbreviation: 'container-title-short',
  abbreviatedsourcetitle: 'container-title-short',
  vol: 'volume',
  no: 'issue',
  issuenumber: 'issue',
  pages: 'page',
  pagerange: 'page',
  pp: 'page',
  artno: 'number',
  place: 'publisher-place',
  city: 'publisher-place',
  court: 'authority',
  series: 'collection-title',
  seriesnumber: 'collection-number',
  numpages: 'number-of-pages',
  link: 'URL',
  links: 'URL',
  address: 'URL',
  web: 'URL',
  pubmedid: 'PMID',
  summary: 'abstract',
  notes: 'note',
  keywords: 'keyword',
  subjects: 'keyword',
  subjectterms: 'keyword',
  tags: 'keyword',
  authorkeywords: 'keyword',
  indexkeywords: 'keyword',
  kind: 'type',
  itemtype: 'type',
  documenttype: 'type',
  key: 'citation-key',
  citationkey: 'citation-key',
  languageoforiginaldocument: 'language',
  shelfmark: 'call-number',
  signature: 'call-number',
};

/** @throws Error with what is wrong with what was said of columns */
export function checkColumns(value: unknown): Columns {
  const fields = new Set<unknown>(['', 'custom', ...COLUMN_FIELDS.map((f) => f.field)]);
  if (typeof value !== 'object' || value === null || Array.isArray(value)) throw new Error('they are no object');
  const wrong = Object.entries(value).find(([, field]) => !fields.has(field));
  if (wrong) throw new Error(`“${wrong[0]}” is said to be ${JSON.stringify(wrong[1])}, which is no field`);
  return value as Columns;
}

const plain = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFD')
    .replace(/[^a-z0-9]/g, '');
const BY_NAME = new Map<string, ColumnField>([
  ...COLUMN_FIELDS.flatMap(({ field, label }): [string, ColumnField][] => [
    [plain(label), field],
    [plain(field), field],
  ]),
  ...Object.entries(HEADINGS),
  ['custom', 'custom'],
]);

/** What headings say their columns are; of two that say the same the first stands. */
export function columnsOf(headings: readonly string[]): Columns {
  const out: Columns = {};
  const taken = new Set<ColumnField>();
  for (const h of headings) {
    const field = BY_NAME.get(plain(h)) ?? '';
    out[h] = taken.has(field) && field !== 'keyword' ? '' : field;
    if (field) taken.add(field);
  }
  return out;
}
