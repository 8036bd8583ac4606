/** What of a source is searched, and under which prefix. Index and query share this, so they always agree. */
import { nameSpoken, NAME_VARIABLES, TEXT_VARIABLES, type Presence, type SourceRecord } from '@pandecta/core/source';
import { Lexemes } from '@pandecta/core/words';

/** Fields with posting lists of their own. */
export const TEXT_FIELDS = { title: 't', author: 'a', journal: 'j', abstract: 'b', note: 'n', page: 'p' } as const;
export type TextField = keyof typeof TEXT_FIELDS;

/**
 * The prefix of a lexeme: the number of the workspace, the field, and whether the source is in the bin. So the
 * words of one workspace, one field, and of what is not in the bin each have posting lists of their own.
 */
export function prefixOf(workspace: number, field: TextField | undefined, presence: Presence): string {
  return `${workspace.toString(36)}${field ? TEXT_FIELDS[field] : ''}${presence === 'live' ? ':' : '!'}`;
}

export interface TextParts {
  workspace: number;
  presence: Presence;
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

/** The text vector of a source: titles weigh A, people B, the rest of the record C, abstract and glosses nothing. */
export function vectorOf(parts: TextParts): string {
  const { record, workspace, presence } = parts;
  const words = new Lexemes();
  const everywhere = prefixOf(workspace, undefined, presence);
  const under = (field: TextField): string[] => [everywhere, prefixOf(workspace, field, presence)];
  for (const title of [record.title, record['title-short']]) if (title) words.add(under('title'), strip(title), 'A');
  for (const variable of NAME_VARIABLES)
    for (const name of record[variable] ?? []) words.add(under('author'), nameSpoken(name), 'B');
  for (const title of [record['container-title'], record['container-title-short']])
    if (title) words.add(under('journal'), strip(title), 'C');
  for (const variable of TEXT_VARIABLES) {
    const value = record[variable];
    if (value && !SEPARATELY.has(variable)) words.add([everywhere], value, 'C');
  }
  const year = record.issued?.['date-parts']?.[0]?.[0];
  if (year) words.add([everywhere], String(year), 'C');
  for (const subject of parts.subjects) words.add([everywhere], subject, 'C');
  if (record.DOI) words.add([everywhere], record.DOI);
  if (record.abstract) words.add(under('abstract'), strip(record.abstract));
  for (const text of [record.note, ...parts.glosses]) if (text) words.add(under('note'), text);
  words.addBare(everywhere, parts.pageStems);
  words.addBare(prefixOf(workspace, 'page', presence), parts.pageStems);
  return words.toString();
}

const strip = (text: string): string => text.replace(/<\/?(?:i|b|sup|sub|span)[^>]*>/g, '');
