/**
 * Feeds as records: Atom (RFC 4287) and RSS 2.0, with the terms of Dublin Core and PRISM that catalogues and journals put
 * into their entries.
 */
import { findDois, plainDoi, normaliseIssn } from '../../identifiers/index.ts';
import { parseDate, parseName, type SourceRecord, type TextVariable } from '../../source/index.ts';
import type { ReadSource } from '../message.ts';
import { childrenOf, textAt, type Element } from '../xml/tree.ts';

export interface FeedEntry extends ReadSource {
  /** What the feed knows it by. */
  id?: string;
  pdf?: string;
}

export function readEntry(entry: Element): FeedEntry | undefined {
  const record: SourceRecord = { type: 'webpage' };
  const put = (field: TextVariable, value: string | undefined): void => {
    if (value && !record[field]) record[field] = value;
  };
  const all = (name: string): string[] =>
    childrenOf(entry, name)
      .map((c) => c.text)
      .filter(Boolean);
  put('title', textAt(entry, 'title'));
  if (!record.title) return undefined;
  const people = [...all('creator'), ...childrenOf(entry, 'author').map((a) => textAt(a, 'name') ?? a.text)];
  const names = people.filter((p) => p && !/@/.test(p)).map((p) => parseName(p));
  if (names.length) record.author = names;
  const date =
    textAt(entry, 'publicationDate') ??
    textAt(entry, 'coverDate') ??
    textAt(entry, 'date') ??
    textAt(entry, 'published') ??
    isoOf(textAt(entry, 'pubDate'));
  if (date) record.issued = parseDate(date.replace(/T.*$/, ''))!;
  put('container-title', textAt(entry, 'publicationName') ?? textAt(entry, 'source', 'title'));
  put('volume', textAt(entry, 'volume'));
  put('issue', textAt(entry, 'number'));
  const [from, to] = [textAt(entry, 'startingPage'), textAt(entry, 'endingPage')];
  put('page', from && to && from !== to ? `${from}-${to}` : from);
  put('publisher', textAt(entry, 'publisher'));
  put('ISSN', normaliseIssn(textAt(entry, 'issn') ?? ''));
  const links = childrenOf(entry, 'link');
  const href = (rel: string): string | undefined =>
    links.find((l) => (l.attributes.rel ?? 'alternate') === rel)?.attributes.href;
  const link = href('alternate') ?? links.find((l) => !l.attributes.href)?.text;
  const identifiers = [...all('doi'), ...all('identifier')];
  put('DOI', identifiers.map((i) => plainDoi(i)).find(Boolean) ?? findDois(link ?? '')[0]);
  put('URL', link);
  put('abstract', stripped(textAt(entry, 'summary') ?? textAt(entry, 'description')));
  put('language', textAt(entry, 'language'));
  if (record.volume || record.ISSN || (record.DOI && record['container-title'])) record.type = 'article-journal';
  const type = textAt(entry, 'type') ?? '';
  if (/book|monograph/i.test(type)) record.type = 'book';
  if (/case|judg?ment/i.test(type)) {
    record.type = 'legal_case';
    put('authority', textAt(entry, 'publisher'));
  }
  const id = textAt(entry, 'id') ?? textAt(entry, 'guid') ?? link;
  const pdf = links.find((l) => l.attributes.type === 'application/pdf')?.attributes.href;
  const subjects = [...all('subject'), ...childrenOf(entry, 'category').flatMap((c) => c.attributes.term ?? c.text)];
  return {
    record,
    subjects: [...new Set(subjects.filter(Boolean))],
    line: entry.line,
    ...(id && { id }),
    ...(pdf && { pdf }),
  };
}

/** RFC 822 dates, as RSS has them: "Tue, 10 Jun 2003 04:00:00 GMT". */
function isoOf(text: string | undefined): string | undefined {
  const m = /(\d{1,2} \w{3} \d{4})/.exec(text ?? '');
  return m?.[1];
}
const stripped = (text: string | undefined): string | undefined =>
  text
    ?.replace(/<[^>]*>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim() || undefined;
