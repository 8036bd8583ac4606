/**
 * Keys by which two records are known for the same work when they come in: identifiers first, then the title with
 * year and first author. Merging of what is already here is another matter; these keys must not err.
 */
import { findDois, normaliseDoi, normaliseIsbn, normalisePmid } from '../identifiers/index.ts';
import { nameShort, withoutMarkup, yearOf, type SourceRecord } from '../source/index.ts';
import { cut } from '../text/index.ts';
import { fold } from '../words/index.ts';

/** Kinds whose ISBN is that of the whole book, not of the part. */
const PARTS = new Set(['chapter', 'paper-conference', 'entry-dictionary', 'entry-encyclopedia', 'entry']);

/** The identifier keys of a record, such as "doi:10.5555/x". Two records that share one are the same work. */
export function identifierKeys(record: SourceRecord): string[] {
  const keys: string[] = [];
  const doi = record.DOI && normaliseDoi(record.DOI);
  if (doi) keys.push(`doi:${doi}`);
  const urlDoi = !doi && record.URL && /doi\.org\//i.test(record.URL) ? findDois(record.URL)[0] : undefined;
  if (urlDoi) keys.push(`doi:${urlDoi.toLowerCase()}`);
  const pmid = record.PMID && normalisePmid(record.PMID);
  if (pmid) keys.push(`pmid:${pmid}`);
  if (!PARTS.has(record.type)) {
    const isbn = record.ISBN?.split(/[\s,;]+/)
      .map(normaliseIsbn)
      .find(Boolean);
    if (isbn) keys.push(`isbn:${isbn}${record.volume ? `:${fold(record.volume)}` : ''}`);
  }
  return keys;
}

/** A title reduced to its letters and digits: "Who Closes the Gate?" and "WHO CLOSES THE GATE" are one. */
export function titleKey(title: string): string {
  return fold(withoutMarkup(title)).replace(/[^\p{L}\p{N}]+/gu, '');
}

/** A title without its subtitle. */
export const mainOf = (title: string): string => withoutMarkup(title).split(/\s*[:?–—]\s+/)[0]!;

/** One key for a work without identifier: kind, title, year, first author, volume and pages, as one file repeats it. */
export function wholeKey(record: SourceRecord): string | undefined {
  const title = record.title && titleKey(record.title);
  if (!title) return undefined;
  const first = record.author?.[0] ?? record.editor?.[0];
  return [
    'same',
    record.type,
    title,
    yearOf(record.issued) ?? '',
    first ? fold(nameShort(first)) : '',
    record.volume ?? '',
    record.issue ?? '',
    record.page ?? '',
    record.number ?? '',
    record.archive_location ?? '',
  ].join(':');
}

/** True when a title is long enough to stand for its work: four words or more and twenty letters. */
export function isTellingTitle(title: string): boolean {
  return title.trim().split(/\s+/).length >= 4 && titleKey(title).length >= 20;
}

/** In characters; an index of PostgreSQL holds 2,704 bytes an entry. */
export const LONGEST_KEY = 600;

/** All keys by which a record is known when it comes in, or another beside it. */
export function matchKeys(record: SourceRecord): string[] {
  const keys = identifierKeys(record);
  const whole = wholeKey(record);
  if (whole) keys.push(whole);
  if (record.title && isTellingTitle(record.title)) keys.push(`title:${titleKey(record.title)}`);
  return keys.map((k) => cut(k, LONGEST_KEY));
}
