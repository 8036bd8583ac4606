/** What of a source is searched, and under which prefix. Index and query share this, so they always agree. */
import { nameSpoken, NAME_VARIABLES, TEXT_VARIABLES, withoutMarkup, type SourceRecord } from '@pandecta/core/source';
import { letterOf, type TextField } from '@pandecta/core/query';
import { Lexemes } from '@pandecta/core/words';

/**
 * The prefix of a lexeme: the number of the workspace, and the field in the vector of fields. So the words of one
 * workspace and of one field have posting lists of their own.
 */
export function prefixOf(workspace: number, field?: TextField): string {
  return `${workspace.toString(36)}${field ? letterOf(field) : ''}:`;
}

export interface TextParts {
  workspace: number;
  record: SourceRecord;
  subjects: string[];
  glosses: string[];
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
  /** How many words of its pages there was no room for. */
  leftOut: number;
}

/** Titles weigh A, people B, the rest of the record C, abstract and glosses nothing. */
export function vectorsOf({ record, workspace, subjects, glosses, pageStems }: TextParts): Vectors {
  const words = new Lexemes();
  const fields = new Lexemes();
  const everywhere = prefixOf(workspace);
  const under = (field: TextField): [Lexemes, string] => [fields, prefixOf(workspace, field)];
  for (const title of [record.title, record['title-short']])
    if (title) words.add(everywhere, withoutMarkup(title), 'A', under('title'));
  for (const variable of NAME_VARIABLES)
    for (const name of record[variable] ?? []) words.add(everywhere, nameSpoken(name), 'B', under('author'));
  for (const title of [record['container-title'], record['container-title-short']])
    if (title) words.add(everywhere, withoutMarkup(title), 'C', under('journal'));
  for (const variable of TEXT_VARIABLES) {
    const value = record[variable];
    if (value && !SEPARATELY.has(variable)) words.add(everywhere, value, 'C');
  }
  const year = record.issued?.['date-parts']?.[0]?.[0];
  if (year) words.add(everywhere, String(year), 'C');
  for (const subject of subjects) words.add(everywhere, subject, 'C');
  if (record.DOI) words.add(everywhere, record.DOI);
  if (record.abstract) words.add(everywhere, withoutMarkup(record.abstract), '', under('abstract'));
  for (const text of [record.note, ...glosses]) if (text) words.add(everywhere, text, '', under('note'));
  words.addBare(everywhere, pageStems);
  fields.addBare(prefixOf(workspace, 'page'), pageStems);
  return { words: words.toString(), fields: fields.toString(), leftOut: Math.max(words.leftOut, fields.leftOut) };
}
