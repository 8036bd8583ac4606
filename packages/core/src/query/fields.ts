/** The fields a query can name, each declared once: who reads it, what lights it and what asks for it all look here. */
interface Field {
  /** Other names for it. */
  also?: readonly string[];
  /** Whether it asks for words, which can be lit; by the letter their lexemes bear in the index. */
  words?: string;
}

const FIELDS = {
  author: { also: ['by', 'person'], words: 'a' },
  title: { words: 't' },
  year: { also: ['date'] },
  kind: { also: ['type'] },
  tag: {},
  subject: { also: ['term'] },
  in: { also: ['collection'] },
  doi: {},
  file: {},
  state: { also: ['reading'] },
  is: {},
  abstract: { words: 'b' },
  journal: { words: 'j' },
  note: { also: ['gloss'], words: 'n' },
  page: { also: ['text'], words: 'p' },
  added: {},
  key: { also: ['citekey'] },
  finding: { also: ['proof'] },
} as const satisfies Record<string, Field>;

type Fields = typeof FIELDS;
export type QueryField = keyof Fields;
/** A field that asks for words. */
export type TextField = { [F in QueryField]: Fields[F] extends { words: string } ? F : never }[QueryField];
/** A field that asks for something else. */
export type OtherField = Exclude<QueryField, TextField>;

export const QUERY_FIELDS = Object.keys(FIELDS) as QueryField[];

const isText = (field: QueryField): field is TextField => 'words' in FIELDS[field];
export const TEXT_FIELDS: readonly TextField[] = QUERY_FIELDS.filter(isText);
export const isTextField = (field: QueryField): field is TextField => isText(field);

/** The letter under which the index keeps the words of a field. */
export const letterOf = (field: TextField): string => FIELDS[field].words;

const NAMES = new Map(
  QUERY_FIELDS.flatMap((field) => [field, ...((FIELDS[field] as Field).also ?? [])].map((name) => [name, field])),
);

/** The field of this name, whatever its case. */
export const fieldNamed = (name: string): QueryField | undefined => NAMES.get(name.toLowerCase());
