/** Vocabularies as tables (CSV after RFC 4180): name, meaning, heading, and the name of the broader one. */
import Papa from 'papaparse';
import { FORMULA, unguarded } from '../formats/table/guard.ts';
import { MOST_CONCEPTS, type Concept, type ReadVocabulary } from './concept.ts';
import { formatNumber } from '../wording/index.ts';

const COLUMNS = ['name', 'meaning', 'heading', 'broader'] as const;
/** What such columns are called elsewhere (common practice). */
const ALSO: Record<(typeof COLUMNS)[number], RegExp> = {
  name: /^(name|term|tag|label|pref ?label|preferred (term|label)|keyword|subject)$/i,
  meaning: /^(meaning|says|definition|description|scope ?note|note)$/i,
  heading: /^(heading|group|category|facet|collection)$/i,
  broader: /^(broader( term)?|bt|parent)$/i,
};

export function writeVocabularyTable(concepts: readonly Concept[]): string {
  const names = new Map(concepts.map((c) => [c.id, c.name]));
  const rows = concepts.map(({ name, says, heading, broader }) => ({
    name,
    meaning: says,
    heading,
    broader: (broader && names.get(broader)) ?? '',
  }));
  return `${Papa.unparse({ fields: [...COLUMNS], data: rows }, { escapeFormulae: FORMULA })}\r\n`;
}

/** By the names of its columns; without such, the first column is the name and the second the meaning. */
export function readVocabularyTable(text: string): ReadVocabulary {
  const plain = text.replace(/^\uFEFF/, '');
  // A short list is too little to guess by; but a tab stands in no word.
  const delimiter = /^[^\r\n]*\t/.test(plain) ? '\t' : '';
  const { data, errors } = Papa.parse<string[]>(plain, { skipEmptyLines: 'greedy', delimiter });
  const messages = errors.slice(0, 20).map((e) => `Line ${(e.row ?? 0) + 1}: ${e.message}`);
  const [head = []] = data;
  const at = (column: (typeof COLUMNS)[number]): number => head.findIndex((h) => ALSO[column].test(h.trim()));
  const headed = at('name') >= 0;
  const place = headed
    ? { name: at('name'), meaning: at('meaning'), heading: at('heading'), broader: at('broader') }
    : { name: 0, meaning: 1, heading: 2, broader: 3 };
  const concepts: Concept[] = [];
  for (const [i, row] of data.slice(headed ? 1 : 0).entries()) {
    const cell = (column: keyof typeof place): string => unguarded(row[place[column]] ?? '').trim();
    const name = cell('name');
    if (!name) messages.push(`Line ${i + (headed ? 2 : 1)} has no name and was left out`);
    else if (concepts.length >= MOST_CONCEPTS) {
      messages.push(`Only the first ${formatNumber(MOST_CONCEPTS)} lines were read`);
      break;
    } else
      concepts.push({
        id: name.toLowerCase(),
        name,
        says: cell('meaning'),
        heading: cell('heading'),
        broader: cell('broader').toLowerCase() || null,
      });
  }
  return { concepts, messages };
}

/** Whether a text is RDF; anything else is read as a table. */
export const isRdf = (text: string): boolean =>
  /^\s*(?:<\?xml|<!DOCTYPE|<rdf:|@prefix|@base|prefix\s|<[^>]*>\s+<)/i.test(text.slice(0, 2000)) ||
  /^\s*#[^\n]*\n\s*(?:@prefix|@base)/i.test(text.slice(0, 4000));
