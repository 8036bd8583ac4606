/** Addresses that list works: feeds, and pages of the web. */
import { identifierKeys, wholeKey } from '../matching/index.ts';
import { readPage } from '../pages/index.ts';
import { nameShort, withoutMarkup, yearOf, type SourceRecord } from '../source/index.ts';
import type { ListingKind } from './names.ts';
import { readOai, type Harvested } from './oai.ts';
import { opensearch } from './opensearch.ts';
import type { OutsideEntry } from './protocol.ts';

/** @throws Error with what is wrong, where the answer is none of the kind */
export function readListing(kind: ListingKind, text: string, address: string): Harvested {
  if (kind === 'oai') return readOai(text);
  return { entries: kind === 'feed' ? ofFeed(text) : ofPage(text, address), deleted: 0 };
}

const ofFeed = (text: string): OutsideEntry[] =>
  opensearch.read(text).entries.map((e) => ({ ...e, accession: e.accession || known(e.record) }));

function ofPage(html: string, address: string): OutsideEntry[] {
  const { items } = readPage(html, address);
  return items.map((record) => ({ record, subjects: [], accession: known(record) }));
}

/** By what a work without a number is known again: an identifier, its address, or who wrote what when. */
const known = (record: SourceRecord): string =>
  identifierKeys(record)[0] ??
  record.URL ??
  wholeKey(record) ??
  [record.author?.[0] && nameShort(record.author[0]), yearOf(record.issued), withoutMarkup(record.title ?? '')]
    .filter(Boolean)
    .join(', ');
