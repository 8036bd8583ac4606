/** OpenSearch 1.1 with results as an Atom feed. The address is the template of the description, with its parameters in braces. */
import { readEntry } from '../formats/atom/read.ts';
import { eachElement } from '../formats/xml/tree.ts';
import type { Protocol } from './protocol.ts';
import type { OutsideQuestion } from './question.ts';

/** All that is asked in one line of words: the protocol has no fields. */
const terms = (q: OutsideQuestion): string =>
  [q.identifier?.value, q.volume, q.page, q.words, q.author, q.title].filter(Boolean).join(' ');

export const opensearch: Protocol = {
  name: 'OpenSearch with Atom',
  accept: 'application/atom+xml, application/xml;q=0.9, */*;q=0.1',
  atOnce: 50,
  address(base, question, from, count) {
    const values: Record<string, string> = {
      searchTerms: terms(question),
      startIndex: String(from + 1),
      startPage: String(Math.floor(from / count) + 1),
      count: String(count),
    };
    return base.replace(/\{(\w+)\??\}/g, (_, name: string) => encodeURIComponent(values[name] ?? ''));
  },
  read(text) {
    let total: number | undefined;
    const entries = [];
    for (const e of eachElement(text, ['totalResults', 'entry', 'item'])) {
      if (e.name === 'totalResults') total = Number(e.text);
      else {
        const read = readEntry(e);
        if (read)
          entries.push({
            record: read.record,
            subjects: read.subjects,
            accession: read.id ?? '',
            ...(read.pdf && { pdf: read.pdf }),
          });
      }
    }
    if (total === undefined && !/<(?:\w+:)?(?:feed|rss|RDF)[\s>]/.test(text)) throw new Error('it is no feed');
    return { total: total || entries.length, entries };
  },
};
