/** How catalogues are asked for the work a record is of: by what is surest of what is known, and which answers are that work. */
import { compare, identifierKeys, titleKey, wordForWord } from '../matching/index.ts';
import { withoutMarkup, yearOf, type SourceRecord } from '../source/index.ts';
import { fold } from '../words/index.ts';
import type { OutsideQuestion } from './question.ts';

export interface Asking {
  question: OutsideQuestion;
  /** A catalogue that knows only words may answer with another work. */
  is(found: SourceRecord): boolean;
  /** Whether the answer says what the work is, and not only what is like it. */
  identified: boolean;
}

const IDENTIFIERS = { ISBN: 'isbn', PMID: 'pmid', PMCID: 'pmcid' } as const;

/**
 * By ISBN, PMID or PMCID; by ISSN, volume and first page; a case by its report; else by title and first author, where the
 * evidence of the whole record then decides. Nothing where too little is known.
 */
export function askingFor(record: SourceRecord): Asking | undefined {
  for (const [field, kind] of Object.entries(IDENTIFIERS)) {
    const value = record[field as keyof typeof IDENTIFIERS];
    if (value)
      return {
        question: { words: '', identifier: { kind, value } },
        is: (found) => sharesKey(found, `${kind}:${value.toLowerCase()}`) || found[field as 'PMCID'] === value,
        identified: true,
      };
  }
  return byPlace(record) ?? byTitle(record);
}

const sharesKey = (found: SourceRecord, key: string): boolean =>
  identifierKeys(found).some((k) => k === key || k.startsWith(`${key}:`));

const firstPage = (r: SourceRecord): string | undefined =>
  (r['page-first'] ?? r.page)?.match(/[A-Za-z]?\d+/)?.[0].toLowerCase();
const same = (a: string | undefined, b: string | undefined): boolean =>
  a !== undefined && b !== undefined && fold(a) === fold(b);

/** Where it stands: a journal's ISSN, or a report of cases, with volume (or the year that stands for it) and first page. */
function byPlace(record: SourceRecord): Asking | undefined {
  const { volume, ISSN, type } = record;
  const page = firstPage(record);
  if (!page) return undefined;
  const there = (found: SourceRecord): boolean => firstPage(found) === page && (!volume || same(found.volume, volume));
  if (ISSN && volume)
    return {
      question: { words: '', identifier: { kind: 'issn', value: ISSN }, volume, page },
      is: (found) => there(found) && (found.ISSN ?? '').split(/[\s,;]+/).includes(ISSN),
      identified: true,
    };
  const report = record['container-title'];
  if (type !== 'legal_case' || !report || !(volume ?? record.issued)) return undefined;
  const year = yearOf(record.issued);
  return {
    // A report is abbreviated here and written out there: the numbers find it, and the evidence decides.
    question: record.title
      ? { words: '', title: partiesOf(record.title) }
      : { words: [year && !volume ? String(year) : '', volume ?? '', page].filter(Boolean).join(' ') },
    is: (found) =>
      there(found) &&
      (year === undefined || yearOf(found.issued) === year) &&
      abbreviates(report, found['container-title']),
    identified: true,
  };
}

/** The words of both parties, without what stands between them. */
const partiesOf = (title: string): string =>
  withoutMarkup(title)
    .replace(/\s+v\.?\s+|[^\p{L}\p{N}]+/giu, ' ')
    .trim();

/** "Est R" is "Estuary Reports": each word begins the one at its place. */
function abbreviates(short: string, long: string | undefined): boolean {
  if (!long) return false;
  if (titleKey(short) === titleKey(long)) return true;
  const words = (t: string): string[] =>
    (fold(t).match(/[\p{L}\p{N}]+/gu) ?? []).filter((w) => !/^(?:of|the|and|in)$/.test(w));
  return wordForWord(words(short), words(long));
}

const TELLING = 3;
/** Words of a title that are asked for: the longest, since catalogues count every word. */
const MOST_WORDS = 6;

function byTitle(record: SourceRecord): Asking | undefined {
  const words = withoutMarkup(record.title ?? '').match(/[\p{L}\p{N}]{3,}/gu) ?? [];
  if (words.length < TELLING) return undefined;
  const asked = new Set([...new Set(words)].sort((a, b) => b.length - a.length).slice(0, MOST_WORDS));
  const first = record.author?.[0] ?? record.editor?.[0];
  const year = yearOf(record.issued);
  return {
    question: {
      words: '',
      title: [...new Set(words)].filter((w) => asked.has(w)).join(' '),
      ...(first?.family && { author: first.family }),
      // Online first, and in print a year later.
      ...(year !== undefined && { yearFrom: year - 1, yearTo: year + 1 }),
    },
    is: (found) => ['certain', 'very likely'].includes(compare(record, found).verdict),
    identified: false,
  };
}
