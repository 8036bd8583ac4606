/**
 * Whether two records are of one work, by the evidence of the whole record: what speaks for it, what against it, and how
 * sure that makes one. What is missing in either says nothing.
 */
import { nameShort, yearOf, type Name, type SourceRecord } from '../source/index.ts';
import { fold } from '../words/index.ts';
import { identifierKeys, mainOf, titleKey } from './keys.ts';

export const VERDICTS = ['certain', 'very likely', 'perhaps', 'different'] as const;
export type Verdict = (typeof VERDICTS)[number];

/** One thing that speaks for or against. */
export interface Reason {
  field: string;
  /** In words: "same DOI", "other year". */
  says: string;
  for: boolean;
}

export interface Evidence {
  verdict: Verdict;
  reasons: Reason[];
}

type Of = (a: SourceRecord, b: SourceRecord) => Reason | undefined;
const both = (field: string, agree: boolean, yes: string, no: string): Reason => ({
  field,
  says: agree ? yes : no,
  for: agree,
});

/** Titles count as one when either is the other without its subtitle. */
const title: Of = (a, b) => {
  if (!a.title || !b.title) return undefined;
  const [x, y] = [titleKey(a.title), titleKey(b.title)];
  if (x === y) return both('title', true, 'same title', '');
  const main = (t: string): string => titleKey(mainOf(t));
  const short = main(a.title) === y || main(b.title) === x || main(a.title) === main(b.title);
  return short && Math.min(x.length, y.length) >= 12
    ? both('title', true, 'same title but for the subtitle', '')
    : both('title', false, '', 'other title');
};

const families = (names: Name[] | undefined): string[] => (names ?? []).map((n) => fold(nameShort(n)));
const people: Of = (a, b) => {
  const [x, y] = [families(a.author ?? a.editor), families(b.author ?? b.editor)];
  if (!x.length || !y.length) return undefined;
  const shared = x.filter((n) => y.includes(n)).length;
  const first = x[0] === y[0];
  return shared === Math.min(x.length, y.length) || (first && shared > 0)
    ? both('author', true, x.length === y.length ? 'same authors' : 'same first author', '')
    : both('author', false, '', 'other authors');
};

const year: Of = (a, b) => {
  const [x, y] = [yearOf(a.issued), yearOf(b.issued)];
  if (x === undefined || y === undefined) return undefined;
  return both('issued', x === y, 'same year', Math.abs(x - y) === 1 ? 'a year apart' : 'other year');
};

const firstPage = (r: SourceRecord): string | undefined => (r['page-first'] ?? r.page)?.match(/[A-Za-z]?\d+/)?.[0];
const page: Of = (a, b) => {
  const [x, y] = [firstPage(a), firstPage(b)];
  return x && y ? both('page', x.toLowerCase() === y.toLowerCase(), 'same first page', 'other pages') : undefined;
};

const plain =
  (field: 'volume' | 'edition' | 'DOI', name: string): Of =>
  (a, b) => {
    const [x, y] = [a[field], b[field]];
    return x && y ? both(field, fold(x) === fold(y), `same ${name}`, `other ${name}`) : undefined;
  };

const WEIGHED: Of[] = [title, people, year, page, plain('volume', 'volume'), plain('edition', 'edition')];

/**
 * @param sameFile whether both hold the very same file
 */
export function compare(a: SourceRecord, b: SourceRecord, sameFile = false): Evidence {
  const reasons = WEIGHED.flatMap((of) => of(a, b) ?? []);
  const says = (field: string): boolean | undefined => reasons.find((r) => r.field === field)?.for;
  const keys = new Set(identifierKeys(b));
  const shared = identifierKeys(a).find((k) => keys.has(k));
  const identified = shared?.slice(0, shared.indexOf(':')).toUpperCase();
  if (sameFile) reasons.unshift({ field: 'file', says: 'the same file', for: true });
  if (identified) reasons.unshift({ field: identified, says: `same ${identified}`, for: true });
  const doi = plain('DOI', 'DOI')(a, b);
  if (doi && !doi.for) reasons.unshift(doi);
  return { verdict: decide(), reasons };

  function decide(): Verdict {
    // An identifier one typed may be that of another work: a title that is another as well takes the certainty away.
    if (sameFile) return 'certain';
    if (identified) return says('title') === false && says('author') === false ? 'perhaps' : 'certain';
    if (!says('title')) {
      const place = says('page') && says('year') !== false && says('volume') && says('author');
      return place && says('title') === undefined ? 'very likely' : place ? 'perhaps' : 'different';
    }
    if (says('edition') === false || (doi && !doi.for)) return 'perhaps';
    const against = reasons.filter((r) => !r.for).length;
    const support = reasons.filter((r) => r.for).length;
    if (against === 0 && support >= 3) return 'very likely';
    if (says('author') === false && says('issued') === false) return 'different';
    return against <= 1 && support >= 3 ? 'very likely' : 'perhaps';
  }
}
