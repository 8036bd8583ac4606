/** A record as matching sees it: repaired, folded, and taken apart once, so that pairs are compared quickly. */
import type { Weights } from './titles.ts';
import { countOf, romanOf } from './counts.ts';
import { findArxivIds, normaliseDoi, normaliseIsbn, normaliseIssn, normalisePmid } from '../identifiers/index.ts';
import { plainText } from '../repair/index.ts';
import { isOthers, yearOf, type Kind, type SourceRecord } from '../source/index.ts';
import { fold } from '../words/index.ts';
import { seePeople, type Person } from './people.ts';

/** Kinds that can be one work in one form. Between groups a work has versions, or parts. */
export type Form = 'article' | 'preprint' | 'conference' | 'chapter' | 'book' | 'thesis' | 'report' | 'case' | 'law' | 'web' | 'letter' | 'review' | 'any'; // prettier-ignore

const FORMS: Partial<Record<Kind, Form>> = {
  'article-journal': 'article',
  'article-magazine': 'article',
  'article-newspaper': 'article',
  article: 'preprint',
  'paper-conference': 'conference',
  chapter: 'chapter',
  entry: 'chapter',
  'entry-dictionary': 'chapter',
  'entry-encyclopedia': 'chapter',
  book: 'book',
  thesis: 'thesis',
  report: 'report',
  legal_case: 'case',
  hearing: 'case',
  legislation: 'law',
  regulation: 'law',
  bill: 'law',
  treaty: 'law',
  webpage: 'web',
  post: 'web',
  'post-weblog': 'web',
  personal_communication: 'letter',
  review: 'review',
  'review-book': 'review',
};

export interface Seen {
  form: Form;
  /** The title in letters and digits alone, and by its words. */
  letters: string;
  words: string[];
  /** What each word counts as, where it counts. */
  counts: (string | undefined)[];
  /** What its words weigh, once it was asked. */
  weights?: Weights;
  /** Which of two comes first wherever they are compared in one direction. */
  order: string;
  /** How many of the words stand before the subtitle. */
  main: number;
  people: Person[];
  /** The list of people ends in "et al.". */
  others: boolean;
  year: number | undefined;
  /** The whole date, where a day is named: "1872-03-01". */
  day: string | undefined;
  container: string[];
  volume: string | undefined;
  issue: string | undefined;
  first: string | undefined;
  last: string | undefined;
  dois: string[];
  isbns: string[];
  issns: string[];
  /** PMID, PMCID, arXiv, each with its kind before it. */
  ids: string[];
  number: string | undefined;
  edition: string | undefined;
  publisher: string[];
  court: string[];
  shelf: string | undefined;
  url: string | undefined;
}

const WORD = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]|[\p{L}\p{N}\p{M}]+/gu;
const PLAIN = /^[\x00-\x7f]*$/;
const APOSTROPHE = /(?<=\p{L})['’ʼ`´](?=\p{L})/gu;

/** Folded words, without apostrophes. */
export function wordsOf(text: string): string[] {
  const folded = fold(/['’ʼ`´]/.test(text) ? text.replace(APOSTROPHE, '') : text);
  // Most titles are of plain letters, which are told faster.
  return folded.match(PLAIN.test(folded) ? /[a-z0-9]+/g : WORD) ?? [];
}

const letters = (text: string | undefined): string | undefined =>
  text === undefined ? undefined : fold(plainText(text)).replace(/[^\p{L}\p{N}]+/gu, '') || undefined;

/** A number as it is told: without "vol.", leading zeros, or the letters of an ordinal. */
function number(text: string | undefined): string | undefined {
  if (text === undefined) return undefined;
  const t = fold(text).replace(/^(?:vol(?:ume)?|no|nr|number|issue|iss|heft|bd|band|t|tome)\.?\s*/, '');
  // An issue written on to its volume is none of it: "41(3)".
  const n = /\d+/.exec(t)?.[0];
  if (n && /^(?:\D{0,2}\d+\D{0,2}|\d+\s*\(.*\))$/.test(t.trim())) return n.replace(/^0+(?=\d)/, '');
  const roman = romanOf(t.trim());
  return roman ? String(roman) : letters(text);
}

/** First and last page: "123-9" is 123 to 129. */
function pagesOf(record: SourceRecord): [string | undefined, string | undefined] {
  const m = /([a-z]{0,3})0*(\d+)(?:\s*[-–—−]+\s*([a-z]{0,3})0*(\d+))?/i.exec(record.page ?? record['page-first'] ?? '');
  if (!m) return [letters(record.page ?? record['page-first'] ?? record.number), undefined];
  const first = m[2]!;
  const end = m[4];
  const last = end && end.length < first.length ? first.slice(0, first.length - end.length) + end : end;
  return [(m[1] ?? '').toLowerCase() + first, last];
}

const EDITIONS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth'];
function editionOf(text: string | undefined): string | undefined {
  if (!text) return undefined;
  const t = fold(text);
  const n = /\d+/.exec(t)?.[0];
  if (n) return n.replace(/^0+(?=\d)/, '');
  const word = EDITIONS.findIndex((e) => t.includes(e));
  return word >= 0 ? String(word + 1) : letters(t.replace(/\b(?:edition|edn|ed)\b\.?/g, ''));
}

/** Versions of one deposit have one DOI but for what tells the version: ".v2", "/v2". */
const ownDoi = (doi: string): string => doi.replace(/[./]v\d+$/i, '');

const SMALL = new Set(['the', 'a', 'an', 'of', 'and', 'in', 'on', 'for', 'to', 'de', 'la', 'le', 'der', 'die', 'das', 'und', 'et', 'y', 'i', 'du', 'des', 'fur', 'zur']); // prettier-ignore
export const isSmall = (word: string): boolean => SMALL.has(word);
const telling = (text: string | undefined): string[] =>
  text ? wordsOf(plainText(text)).filter((w) => !isSmall(w)) : [];

export function see(record: SourceRecord): Seen {
  const title = plainText(record.title ?? '');
  const words = wordsOf(title);
  const people = record.author ?? record.editor ?? record.director ?? record.interviewer ?? [];
  const [first, last] = pagesOf(record);
  const date = record.issued?.['date-parts']?.[0] ?? [];
  const doi = (record.DOI && normaliseDoi(record.DOI)) || (/doi\.org\//i.test(record.URL ?? '') ? normaliseDoi(record.URL!) : undefined); // prettier-ignore
  const isbns = (record.ISBN ?? '').split(/[\s,;]+/).flatMap((t) => normaliseIsbn(t) ?? []);
  const issns = (record.ISSN ?? '').split(/[\s,;]+/).flatMap((t) => normaliseIssn(t) ?? []);
  const pmid = record.PMID && normalisePmid(record.PMID);
  const arxiv = findArxivIds([record.number, record.URL, record.DOI].filter(Boolean).join(' '))[0];
  const all = words.join('');
  const container = telling(record['container-title'] ?? record['collection-title']);
  const seen = seePeople(people.filter((n) => !isOthers(n)));
  return {
    form: FORMS[record.type] ?? 'any',
    letters: all,
    words,
    counts: words.map(countOf),
    order: `${all}|${seen.map((p) => p.family + p.given.join('')).join()}|${container.join()}`,
    main: mainWords(title, words),
    people: seen,
    others: people.some(isOthers),
    year: yearOf(record.issued),
    day: date.length === 3 ? date.join('-') : undefined,
    container,
    volume: number(record.volume),
    issue: number(record.issue),
    first,
    last,
    dois: doi ? [ownDoi(doi)] : [],
    isbns,
    issns,
    ids: [...(pmid ? [`pmid:${pmid}`] : []), ...(record.PMCID ? [`pmcid:${letters(record.PMCID)}`] : []), ...(arxiv ? [`arxiv:${arxiv}`] : [])], // prettier-ignore
    number: number(record.number),
    edition: editionOf(record.edition),
    publisher: telling(record.publisher),
    court: telling(record.authority),
    shelf: letters(record.archive_location),
    url: letters(record.URL?.replace(/^https?:\/\/(?:www\.)?|[?#].*$|\/$/g, '')),
  };
}

/** A title ends where its subtitle begins: behind a colon, a dash, a question mark, a stop, a bracket. */
function mainWords(title: string, words: string[]): number {
  const cut = /[:?!.;]\s|\s[–—-]\s|\s[([]/.exec(title.slice(3));
  return cut ? Math.min(words.length, wordsOf(title.slice(0, cut.index + 3)).length) : words.length;
}
