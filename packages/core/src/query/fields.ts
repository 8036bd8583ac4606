/**
 * The fields a query can name, each declared once: who reads it, what lights it, what asks for it, what offers it as one
 * types and what lets one build a question all look here.
 */
import { NAME_VARIABLES, variableLabel, type NameVariable } from '../source/variables.ts';
import { DATES_SAID, parseDays, parseYears, YEARS_SAID } from './ranges.ts';

/** What stands behind a field. */
export type Asks =
  /** Words, which can be lit; by the code their lexemes bear in the index. */
  | { words: string }
  /** The beginning of an identifier; by the code its lexeme bears in the index. */
  | { identifier: string }
  /** One of a few values, each with what it is called. */
  | { values: Readonly<Record<string, string>>; facet: string; also?: Readonly<Record<string, string>> }
  /** A thing by its name, or by how it begins, among those the workspace has. */
  | { facet: string }
  /** A range; and what can be said of a text that is none. */
  | { range: (text: string) => unknown; says: string };

export interface Field {
  /** What it is called where a question is built. */
  name: string;
  /** Under which heading it stands there. */
  under: (typeof FIELD_GROUPS)[number];
  asks: Asks;
  /** Other names for it. */
  also?: readonly string[];
}

export const FIELD_GROUPS = [
  'Words',
  'Work',
  'People',
  'Published',
  'Kept at',
  'Identifiers',
  'Filed',
  'State',
  'Coming',
] as const;

const role = (variable: NameVariable): Field & { asks: { words: string } } => ({
  name: variableLabel(variable),
  under: 'People',
  asks: { words: `R${variable}` },
});
const ROLES = Object.fromEntries(NAME_VARIABLES.map((v) => [v, role(v)])) as Record<
  NameVariable,
  ReturnType<typeof role>
>;

const FIELDS = {
  title: { name: 'Title', under: 'Words', asks: { words: 't' } },
  abstract: { name: 'Abstract', under: 'Words', asks: { words: 'b' } },
  page: { name: 'Pages of files', under: 'Words', asks: { words: 'p' }, also: ['text'] },
  note: { name: 'Notes and glosses', under: 'Words', asks: { words: 'n' }, also: ['gloss'] },
  kind: { name: 'Kind', under: 'Work', asks: { facet: 'kind' }, also: ['type'] },
  year: { name: 'Year', under: 'Work', asks: { range: parseYears, says: YEARS_SAID } },
  date: { name: 'Date', under: 'Work', asks: { range: parseDays, says: DATES_SAID } },
  language: { name: 'Language', under: 'Work', asks: { facet: 'language' } },
  person: { name: 'Person, in any role', under: 'People', asks: { words: 'a' } },
  ...ROLES,
  author: { ...ROLES.author, also: ['judge'] },
  container: { name: 'Published in', under: 'Published', asks: { words: 'j' }, also: ['journal', 'reporter'] },
  publisher: { name: 'Publisher', under: 'Published', asks: { words: 'P' } },
  place: { name: 'Place', under: 'Published', asks: { words: 'L' } },
  court: { name: 'Court or authority', under: 'Published', asks: { words: 'C' }, also: ['authority'] },
  jurisdiction: { name: 'Jurisdiction', under: 'Published', asks: { words: 'J' } },
  archive: { name: 'Archive', under: 'Kept at', asks: { words: 'A' } },
  location: { name: 'Location in archive', under: 'Kept at', asks: { words: 'O' } },
  database: { name: 'Database', under: 'Kept at', asks: { words: 'D' } },
  doi: { name: 'DOI', under: 'Identifiers', asks: { identifier: 'doi' } },
  isbn: { name: 'ISBN', under: 'Identifiers', asks: { identifier: 'isbn' } },
  issn: { name: 'ISSN', under: 'Identifiers', asks: { identifier: 'issn' } },
  pmid: { name: 'PMID', under: 'Identifiers', asks: { identifier: 'pmid' } },
  pmcid: { name: 'PMCID', under: 'Identifiers', asks: { identifier: 'pmcid' } },
  number: { name: 'Number or accession', under: 'Identifiers', asks: { identifier: 'number' }, also: ['accession'] },
  url: { name: 'Address', under: 'Identifiers', asks: { words: 'U' } },
  key: { name: 'Citation key', under: 'Identifiers', asks: { identifier: 'cite' }, also: ['citekey'] },
  label: { name: 'Label', under: 'State', asks: { facet: 'label' } },
  rating: { name: 'Rating', under: 'State', asks: { range: parseYears, says: 'ratings are written 4, 3-5, 4- or <3' } },
  tag: { name: 'Tag', under: 'Filed', asks: { facet: 'tag' } },
  subject: { name: 'Subject term', under: 'Filed', asks: { facet: 'subject' }, also: ['term'] },
  in: { name: 'Place of collections: in it, or below', under: 'Filed', asks: { facet: 'in' }, also: ['collection'] },
  filed: { name: 'Filed in the collection itself', under: 'Filed', asks: { facet: 'filed' } },
  saved: { name: 'Saved search', under: 'Filed', asks: { facet: 'saved' } },
  new: { name: 'New in a saved search you watch', under: 'Filed', asks: { facet: 'saved' } },
  state: {
    name: 'Reading state',
    under: 'State',
    asks: {
      facet: 'reading',
      values: { 'to read': 'To read', reading: 'Reading', read: 'Read', none: 'Nothing said' },
      also: { unread: 'to read' },
    },
    also: ['reading'],
  },
  is: {
    name: 'Is',
    under: 'State',
    asks: {
      facet: 'is',
      values: {
        starred: 'Starred',
        loose: 'In no collection',
        again: 'To be checked again',
        cited: 'Cited by another source here',
      },
      also: { unfiled: 'loose' },
    },
  },
  has: {
    name: 'Has',
    under: 'State',
    asks: {
      facet: 'has',
      values: {
        file: 'A file',
        mark: 'A mark',
        gloss: 'A gloss',
        note: 'A note in the record',
        research: 'A research note',
        abstract: 'An abstract',
        identifier: 'An identifier',
        tag: 'A tag',
        date: 'A date',
        relation: 'A relation to another source',
      },
    },
  },
  file: { name: 'File', under: 'State', asks: { facet: 'file' } },
  sense: { name: 'Sense of a mark', under: 'State', asks: { facet: 'sense' } },
  about: { name: 'Notes about', under: 'Filed', asks: { facet: 'about' } },
  finding: { name: 'Finding', under: 'State', asks: { facet: 'finding' }, also: ['proof'] },
  until: { name: 'Access until', under: 'State', asks: { facet: 'until' } },
  added: { name: 'Added', under: 'Coming', asks: { range: parseDays, says: DATES_SAID } },
  changed: { name: 'Changed', under: 'Coming', asks: { range: parseDays, says: DATES_SAID } },
  by: { name: 'Added by', under: 'Coming', asks: { facet: 'by' } },
  from: { name: 'Came with', under: 'Coming', asks: { facet: 'batch' } },
} as const satisfies Record<string, Field>;

type Fields = typeof FIELDS;
export type QueryField = keyof Fields;
/** A field that asks for words. */
export type TextField = { [F in QueryField]: Fields[F]['asks'] extends { words: string } ? F : never }[QueryField];
/** The values of a field that knows a few. */
export type ValueOf<F extends QueryField> = Fields[F]['asks'] extends { values: infer V } ? keyof V & string : never;
/** A field that asks for something else. */
export type OtherField = Exclude<QueryField, TextField>;

export const QUERY_FIELDS = Object.keys(FIELDS) as QueryField[];
export const fieldOf = (field: QueryField): Field => FIELDS[field];
const isText = (field: QueryField): field is TextField => 'words' in FIELDS[field].asks;
export const TEXT_FIELDS: readonly TextField[] = QUERY_FIELDS.filter(isText);
export const isTextField = (field: QueryField): field is TextField => isText(field);

/** The code under which the index keeps the words of a field. No digit and no small letter leads one of several letters. */
export const codeOf = (field: TextField): string => FIELDS[field].asks.words;

const NAMES = new Map(
  QUERY_FIELDS.flatMap((field) => [field, ...(fieldOf(field).also ?? [])].map((name) => [name, field])),
);
/** The field of this name, whatever its case. */
export const fieldNamed = (name: string): QueryField | undefined => NAMES.get(name.toLowerCase());
/** Every name a field goes by. */
export const FIELD_NAMES: readonly string[] = [...NAMES.keys()];

/** The few values a field knows, each with what it is called; none where it may be asked for anything. */
export function valuesOf(field: QueryField): Readonly<Record<string, string>> | undefined {
  const { asks } = fieldOf(field);
  return 'values' in asks ? asks.values : undefined;
}

/** The value meant by a text, of a field with a few: by its name, another for it, or how it begins. */
export function valueMeant<F extends QueryField>(field: F, text: string): ValueOf<F> | undefined {
  const { asks } = fieldOf(field);
  if (!('values' in asks)) return undefined;
  const wanted = text.toLowerCase().replace(/[-_]/g, ' ').trim();
  const values = Object.keys(asks.values);
  if (!wanted) return undefined;
  return (values.find((v) => v === wanted || asks.values[v]!.toLowerCase() === wanted) ??
    asks.also?.[wanted] ??
    values.find((v) => v.startsWith(wanted))) as ValueOf<F> | undefined;
}

/** What is wrong with the value of a field, as far as it can be told from it alone. */
export function mistakeIn(field: QueryField, text: string): string | undefined {
  const { asks, name } = fieldOf(field);
  if ('range' in asks) return asks.range(text) ? undefined : `“${text}” is no ${name.toLowerCase()}; ${asks.says}`;
  if (!('values' in asks) || valueMeant(field, text)) return undefined;
  return `“${text}” is not known of “${field}”; it knows ${Object.keys(asks.values).join(', ')}`;
}
