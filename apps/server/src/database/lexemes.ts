/** What of a source is searched, and under which prefix. Index and query share this, so they always agree. */
import { nameSpoken, NAME_VARIABLES, TEXT_VARIABLES, withoutMarkup, type SourceRecord } from '@pandecta/core/source';
import { codeOf, fieldOf, QUERY_FIELDS, type QueryField, type TextField } from '@pandecta/core/query';
import { normaliseIsbn } from '@pandecta/core/identifiers';
import { fold, Lexemes } from '@pandecta/core/words';

/**
 * The prefix of a lexeme: the number of the workspace, the field in the vector of fields, and the member who alone finds it. So
 * the words of one workspace, of one field and of one member have posting lists of their own.
 * @param audience the id of a member; everyone finds what has none
 */
export function prefixOf(workspace: number, field?: TextField, audience?: string | null): string {
  const member = audience ? `~${audience.replaceAll('-', '')}` : '';
  return `${workspace.toString(36)}${field ? codeOf(field) : ''}${member}:`;
}

/** The same for an identifier, whose lexeme is all of it. */
export const identifierPrefix = (workspace: number, code: string): string => `${workspace.toString(36)}I${code}:`;

/** All words of the record, what its fields beside title, people, container and abstract hold under this code. */
export const restPrefix = (workspace: number): string => `${workspace.toString(36)}r:`;

/** An identifier as it is kept and looked for: its letters and digits, an ISBN in its longer form where it is whole. */
export const bareIdentifier = (code: string, text: string): string =>
  (code === 'isbn' ? normaliseIsbn(text) : undefined) ??
  fold(text)
    .replace(/[^\p{L}\p{N}]+/gu, '')
    .slice(0, 100);

/** The variables of a record that hold the identifiers a query can name. */
const IDENTIFIERS: Partial<Record<QueryField, readonly (keyof SourceRecord)[]>> = {
  isbn: ['ISBN'],
  issn: ['ISSN'],
  pmid: ['PMID'],
  pmcid: ['PMCID'],
  number: ['number', 'call-number'],
};
/** Those kept among the lexemes; DOI and citation key have keys of their own. */
export const KEPT_IDENTIFIERS = QUERY_FIELDS.filter((f) => f in IDENTIFIERS);

/** The fields whose words have a place of their own, by the variable. */
const OWN_WORDS: Partial<Record<string, TextField>> = {
  publisher: 'publisher',
  'original-publisher': 'publisher',
  'publisher-place': 'place',
  'event-place': 'place',
  'original-publisher-place': 'place',
  authority: 'court',
  jurisdiction: 'jurisdiction',
  archive: 'archive',
  archive_collection: 'archive',
  'archive-place': 'archive',
  archive_location: 'location',
  source: 'database',
};

export interface TextParts {
  workspace: number;
  record: SourceRecord;
  subjects: string[];
  /** What members wrote on it, and who alone finds it. */
  written: { text: string; audience: string | null }[];
  /** Stems of the words on its pages, each once. */
  pageStems: string[];
}

const SEPARATELY = new Set<string>([
  'title',
  'title-short',
  'container-title',
  'container-title-short',
  'abstract',
  'note',
  'DOI',
  'URL',
]);

/** The text vectors of a source: of all its words, and of the words of each field. */
export interface Vectors {
  words: string;
  fields: string;
  /** Its words as the index has them, each once: what close spellings are looked for among. */
  stems: string[];
  /** Of each text written on it, by itself. */
  written: string[];
  /** How many words of its pages there was no room for. */
  leftOut: number;
}

/** Titles weigh A, people B, the rest of the record C, abstract and glosses nothing. */
export function vectorsOf({ record, workspace, subjects, written, pageStems }: TextParts): Vectors {
  const words = new Lexemes();
  const fields = new Lexemes();
  const everywhere = prefixOf(workspace);
  const under = (field: TextField): [Lexemes, string] => [fields, prefixOf(workspace, field)];
  const rest: [Lexemes, string] = [fields, restPrefix(workspace)];
  for (const title of [record.title, record['title-short']])
    if (title) words.add(everywhere, withoutMarkup(title), 'A', under('title'));
  for (const variable of NAME_VARIABLES)
    for (const name of record[variable] ?? [])
      words.add(everywhere, nameSpoken(name), 'B', under('person'), under(variable));
  for (const title of [record['container-title'], record['container-title-short']])
    if (title) words.add(everywhere, withoutMarkup(title), 'C', under('container'));
  for (const variable of TEXT_VARIABLES) {
    const value = record[variable];
    if (!value || SEPARATELY.has(variable)) continue;
    const own = OWN_WORDS[variable];
    words.add(everywhere, value, 'C', rest, ...(own ? [under(own)] : []));
  }
  for (const field of KEPT_IDENTIFIERS) {
    const { asks } = fieldOf(field);
    if (!('identifier' in asks)) continue;
    const texts = IDENTIFIERS[field]!.flatMap((variable) => identifiersIn(field, record[variable]));
    fields.addBare(
      identifierPrefix(workspace, asks.identifier),
      texts.map((t) => bareIdentifier(asks.identifier, t)).filter(Boolean),
    );
  }
  const year = record.issued?.['date-parts']?.[0]?.[0];
  if (year) words.add(everywhere, String(year), 'C', rest);
  for (const subject of subjects) words.add(everywhere, subject, 'C', rest);
  if (record.DOI) words.add(everywhere, record.DOI, '', rest);
  if (record.URL) fields.add(prefixOf(workspace, 'url'), record.URL);
  if (record.abstract) words.add(everywhere, withoutMarkup(record.abstract), '', under('abstract'));
  if (record.note) words.add(everywhere, record.note, '', under('note'), rest);
  for (const { text, audience } of written)
    words.add(prefixOf(workspace, undefined, audience), text, '', [fields, prefixOf(workspace, 'note', audience)]);
  words.addBare(everywhere, pageStems);
  fields.addBare(prefixOf(workspace, 'page'), pageStems);
  return {
    words: words.toString(),
    fields: fields.toString(),
    stems: words.stems(everywhere),
    written: written.map(({ text, audience }) => {
      const own = new Lexemes();
      own.add(prefixOf(workspace, undefined, audience), text);
      return own.toString();
    }),
    leftOut: Math.max(words.leftOut, fields.leftOut),
  };
}

/** One of several; only an ISBN may stand beside another. */
const identifiersIn = (field: QueryField, value: unknown): string[] =>
  typeof value !== 'string'
    ? []
    : field === 'isbn' || field === 'issn'
      ? value.split(/[,;]\s*|\s+(?=97[89])/)
      : [value];
