/** SRU 1.1, 1.2 (Library of Congress) and 2.0 (OASIS searchRetrieve), with records in MODS, MARCXML or Dublin Core. */
import { schemaRecord } from './schemas.ts';
import { childOf, childrenOf, eachElement, textAt, type Element } from '../formats/xml/tree.ts';
import type { OutsideAnswer, OutsideEntry, Protocol } from './protocol.ts';
import type { OutsideQuestion } from './question.ts';

const quoted = (text: string): string => `"${text.replace(/["\\]/g, '\\$&')}"`;

const all = (index: string, words: string): string => `${index} all ${quoted(words)}`;

/** In CQL 1.2, with the indexes of the bath and dc context sets. */
export function toCql(q: OutsideQuestion): string {
  if (q.identifier) {
    const index = {
      isbn: 'bath.isbn',
      issn: 'bath.issn',
      doi: 'dc.identifier',
      pmid: 'dc.identifier',
      pmcid: 'dc.identifier',
    };
    // No set of indexes has volume and page: they are asked for as words of the record.
    const place = [q.volume, q.page].filter(Boolean).join(' ');
    const where = place && ` and ${all('cql.serverChoice', place)}`;
    return `${index[q.identifier.kind]}=${quoted(q.identifier.value)}${where}`;
  }
  const parts = [
    // Whoever writes operators or phrases has written CQL, or what is read as CQL.
    ...(q.words
      ? [/\b(?:AND|OR|NOT)\b|["()=]/.test(q.words) ? `(${balanced(q.words)})` : all('cql.serverChoice', q.words)]
      : []),
    ...(q.author ? [all('dc.creator', q.author)] : []),
    ...(q.title ? [all('dc.title', q.title)] : []),
    ...(q.yearFrom ? [`dc.date >= ${quoted(String(q.yearFrom))}`] : []),
    ...(q.yearTo ? [`dc.date <= ${quoted(String(q.yearTo))}`] : []),
  ];
  return parts.join(' and ');
}

/** Quotation marks and brackets that stand alone would break the question: they are left out. */
function balanced(words: string): string {
  const even = (words.match(/"/g)?.length ?? 0) % 2 === 0;
  let depth = 0;
  const sound = [...words].every((c) => (depth += c === '(' ? 1 : c === ')' ? -1 : 0) >= 0) && depth === 0;
  return words.replace(even ? /(?!)/g : /"/g, ' ').replace(sound ? /(?!)/g : /[()]/g, ' ');
}

const sru = (version: '1.1' | '1.2' | '2.0'): Protocol => ({
  name: `SRU ${version}`,
  accept: 'application/xml, text/xml;q=0.9, */*;q=0.1',
  atOnce: 50,
  address(base, question, from, count) {
    const url = new URL(base);
    const set = (name: string, value: string): void => url.searchParams.set(name, value);
    if (version !== '2.0') {
      set('operation', 'searchRetrieve');
      set('version', version);
      set('recordPacking', 'xml');
    }
    set('query', toCql(question));
    set('startRecord', String(from + 1));
    set('maximumRecords', String(count));
    set('recordSchema', 'mods');
    return url.href;
  },
  read(text) {
    const [whole] = eachElement(text, ['searchRetrieveResponse']);
    if (!whole) throw new Error('it is no answer to a search');
    const diagnostic = childOf(childOf(whole, 'diagnostics'), 'diagnostic');
    if (diagnostic)
      return {
        total: 0,
        entries: [],
        refused: [textAt(diagnostic, 'message'), textAt(diagnostic, 'details')].filter(Boolean).join(': '),
      };
    const entries = childrenOf(childOf(whole, 'records') ?? EMPTY, 'record').flatMap(entryOf);
    return { total: Number(textAt(whole, 'numberOfRecords') ?? entries.length), entries } satisfies OutsideAnswer;
  },
});

const EMPTY: Element = { name: '', attributes: {}, children: [], text: '', content: [], line: 0 };

function entryOf(record: Element): OutsideEntry[] {
  const found = schemaRecord(childOf(record, 'recordData'));
  if (!found) return [];
  const accession = found.accession ?? textAt(record, 'recordIdentifier') ?? '';
  return found.record.title ? [{ ...found, accession }] : [];
}

export const sru11 = sru('1.1');
export const sru12 = sru('1.2');
export const sru20 = sru('2.0');
