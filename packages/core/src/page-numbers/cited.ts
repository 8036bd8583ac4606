/** The page that is cited: the number a page has in print, of what is known of it. */
import type { NumberedParagraph } from './paragraphs.ts';
import { isPlainCount, numberIn, runOf, type NumberRun } from './runs.ts';

/** What is known of a document's numbers, each part by its own runs, which may be none. */
export interface Numbering {
  /** The page labels of the file (ISO 32000-1, 12.4.2). */
  labels: NumberRun[];
  /** Read at the heads and feet of its pages. */
  printed: NumberRun[];
  /** Set by a person: each from its page on. */
  byHand: NumberRun[];
}

export const NO_NUMBERING: Numbering = { labels: [], printed: [], byHand: [] };

export const NUMBER_ORIGINS = ['by hand', 'labels', 'printed', 'record', 'counted'] as const;
export type NumberOrigin = (typeof NUMBER_ORIGINS)[number];

export interface CitedPages {
  runs: NumberRun[];
  /** Where they are from. */
  origin: NumberOrigin;
  /** The numbered paragraphs of a judgment, which is cited by them and not by its pages. */
  paragraphs?: NumberedParagraph[] | undefined;
}

const COUNTED: CitedPages = { runs: [{ page: 1, style: 'decimal', prefix: '', start: 1 }], origin: 'counted' };

/**
 * The numbers by which the pages of a document are cited. A person's word goes before all; then the labels of the file, unless
 * they merely count; then the record's pages (201–229: the first page is 201), unless the numbers printed on the pages say
 * otherwise, as where a cover was put before the first; then the printed numbers.
 * @param recordPages the variable `page` of the record
 */
export function citedPages(
  { labels, printed, byHand }: Numbering,
  recordPages: string | undefined,
  count: number,
): CitedPages {
  if (byHand.length) {
    const first = byHand[0]!;
    // What was said of a page holds for those before it as well, as far as there are numbers.
    const page = Math.max(1, first.page - first.start + 1);
    const before = page > 1 ? citedPages({ labels, printed, byHand: [] }, recordPages, count).runs : [];
    const start = first.start - (first.page - page);
    return {
      runs: [...before.filter((r) => r.page < page), { ...first, page, start }, ...byHand.slice(1)],
      origin: 'by hand',
    };
  }
  if (labels.length && !isPlainCount(labels)) return { runs: labels, origin: 'labels' };
  const first = firstPage(recordPages, count);
  if (printed.length) {
    const agrees = first !== undefined && numberIn(runOf(printed, 1) ?? printed[0]!, 1) === String(first);
    return agrees ? { runs: runsOfRecord(first), origin: 'record' } : { runs: filled(printed), origin: 'printed' };
  }
  if (first !== undefined && first !== 1) return { runs: runsOfRecord(first), origin: 'record' };
  return COUNTED;
}

const runsOfRecord = (start: number): NumberRun[] => [{ page: 1, style: 'decimal', prefix: '', start }];

/** The pages before the first run have no number of their own: they are named by their count, in brackets. */
const filled = (runs: NumberRun[]): NumberRun[] =>
  runs[0]!.page > 1 ? [{ page: 1, style: 'none', prefix: '', start: 1 }, ...runs] : runs;

/**
 * The first page of a record whose pages a document has: of "201–229", where it has about as many; of "201" alone.
 * Undefined where the document holds more or fewer pages than that, since it is then not the printed work alone.
 */
function firstPage(pages: string | undefined, count: number): number | undefined {
  const [, from, to] = /^\s*(\d{1,6})(?:\s*[-–—]+\s*(\d{1,6}))?\s*$/.exec(pages ?? '') ?? [];
  if (!from) return undefined;
  const first = Number(from);
  if (!to) return first;
  // The end may be shortened: “201–29” means 201 to 229.
  const last = to.length < from.length ? Number(from.slice(0, from.length - to.length) + to) : Number(to);
  return last >= first && last - first + 1 === count ? first : undefined;
}

/** The number by which a page is cited; its count in brackets where it has none. @param page counted from 1 */
export function citedPage({ runs }: CitedPages, page: number): string {
  const run = runOf(runs, page);
  return (run && numberIn(run, page)) || `[${page}]`;
}

/**
 * The page one means: by a paragraph ("para 33", "[33]") where those are counted, by the number it is cited by, then by its count.
 * @returns counted from 1; undefined where there is none
 */
export function pageNamed(cited: CitedPages, written: string, count: number): number | undefined {
  const paragraph = Number(/^(?:para(?:graph)?\.?|¶|\[)\s*(\d{1,4})\]?$/i.exec(written.trim())?.[1]);
  const within = cited.paragraphs?.find((p) => p.number === paragraph);
  if (within) return within.page;
  const wanted = written.trim().replace(/^(?:pp?|ff?)\.\s*/i, '');
  for (let page = 1; page <= count; page += 1)
    if (citedPage(cited, page).toLowerCase() === wanted.toLowerCase()) return page;
  const counted = Number(/^\[?(\d+)\]?$/.exec(wanted)?.[1]);
  return counted >= 1 && counted <= count ? counted : undefined;
}
