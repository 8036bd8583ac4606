/**
 * Makes a first record of a document from what it carries: identifiers in its first pages, its embedded metadata,
 * and the look of its first page. Every field says where it came from and how sure it is (0 to 1). What is not borne
 * out stays empty: an empty field is seen and filled, a wrong one is printed.
 */
import { findArxivIds, findDois, findIsbns } from '../identifiers/index.ts';
import type { DateValue, Name, SourceRecord } from '../source/index.ts';
import { cellsOf, isProse, lettersOf, type Cell } from './cells.ts';
import { readAuthors } from './authors.ts';
import type { Page } from './page.ts';
import { peopleOfField } from './people.ts';
import { citationLine, noticeYear, statedDate, type CitationLine } from './printed.ts';
import { isPlaceholder, readTitle, type FoundTitle } from './title.ts';

export type Origin =
  | 'document identifier'
  | 'embedded metadata'
  | 'page layout'
  | 'file name'
  | 'identifier registry'
  | 'catalogue'
  | 'stated on the page'
  | 'printed reference'
  | 'import'
  | 'person';

export interface Provenance {
  [field: string]: { from: Origin; sure: number };
}

/** What the file says of itself: the Info dictionary (ISO 32000-1, 14.3.3) and XMP (ISO 16684-1). */
export interface Embedded {
  title?: string;
  /** As the fields have them; one may hold several people. */
  authors?: string[];
  keywords?: string[];
  doi?: string;
}

export interface Recognised {
  record: SourceRecord;
  subjects: string[];
  provenance: Provenance;
}

/** How many pages are looked at. */
const FRONT = 3;

export function recognise(pages: Page[], embedded: Embedded, fileName: string): Recognised {
  const record: SourceRecord = { type: 'document' };
  const provenance: Provenance = {};
  const put = (field: keyof SourceRecord, value: unknown, from: Origin, sure: number): void => {
    (record as Record<string, unknown>)[field] = value;
    provenance[field] = { from, sure };
  };
  const first = pages[0];
  const cells = first ? cellsOf(first) : [];
  const front = pages
    .slice(0, FRONT)
    .map((p) => p.text)
    .join('\n');
  const found = readTitle(first, cells);
  const line = printedIn(cells);
  readIdentifiers(pages.slice(0, FRONT), cells, embedded, Boolean(line), put);
  readTitleOf(found, cells, front, embedded, fileName, put);
  const title = record.title ? lettersOf(record.title) : '';
  // A cover has the title alone; the page behind it has it again, with the people.
  const authors =
    authorsOf(first, cells, found, embedded) ??
    pages
      .slice(1, FRONT)
      .filter((p) => title.length > 8 && lettersOf(p.text).includes(title))
      .map((p) => [p, cellsOf(p)] as const)
      .map(([p, own]) => authorsOf(p, own, readTitle(p, own), embedded))
      .find(Boolean);
  if (authors) put('author', authors.names, authors.from, authors.sure);
  if (line) {
    put('container-title', line.container, 'page layout', 0.7);
    for (const field of ['volume', 'issue', 'page'] as const)
      if (line[field]) put(field, line[field], 'page layout', 0.7);
    if (record.type === 'document') put('type', 'article-journal', 'page layout', 0.6);
  }
  const date = dateOf(cells, found, line, first?.text ?? '');
  if (date) put('issued', date.value, 'page layout', date.sure);
  return { record, subjects: embedded.keywords ?? [], provenance };
}

type Put = (field: keyof SourceRecord, value: unknown, from: Origin, sure: number) => void;

/** What a template has where an identifier goes: zeros, letters that stand for digits, the example of a style. */
const MADE_UP = /^10\.0+\/|^10\.\d+\/(?:[0.x_n-]+|.*(?:x{4}|n{4}|0{6}|123456|1122445).*|doi|insert.*)$/i;

function readIdentifiers(pages: Page[], cells: Cell[], embedded: Embedded, periodical: boolean, put: Put): void {
  const arxiv = pages.flatMap((p) => findArxivIds(p.text))[0];
  const own = embedded.doi ?? printedDoi(cells, pages[0]) ?? soleDoi(pages);
  const doi = own && !MADE_UP.test(own) ? own : undefined;
  if (doi) {
    put('DOI', doi, embedded.doi ? 'embedded metadata' : 'document identifier', embedded.doi ? 0.95 : 0.9);
    put('type', arxiv ? 'article' : 'article-journal', 'document identifier', 0.6);
    return;
  }
  const isbn = printedIsbn(pages);
  if (isbn && !periodical) {
    put('ISBN', isbn, 'document identifier', 0.9);
    put('type', 'book', 'document identifier', 0.7);
  }
  if (arxiv) {
    put('number', arxiv, 'document identifier', 0.9);
    put('archive', 'arXiv', 'document identifier', 0.9);
    put('type', 'article', 'document identifier', 0.8);
  }
}

/** The ISBN of the front, but for one in a reference and for the zeros of a template. */
function printedIsbn(pages: Page[]): string | undefined {
  for (const { text } of pages) {
    const before = text.slice(0, Math.max(0, text.search(/ISBN/i))).slice(-300);
    const isbn = findIsbns(text).find((i) => !/0{6}/.test(i));
    if (isbn && !REFERENCE.test(before) && !REFERENCE_LATER.test(before)) return isbn;
  }
  return undefined;
}

/** What stands before a DOI that is another work's: a year that ends the names of a reference, the number of one. */
const REFERENCE = /\((?:19|20)\d\d[a-z]?\)[.:]|\[\d{1,3}\]\s/;
/** The same further on in a document, where no masthead stands. */
const REFERENCE_LATER =
  /\bpages?\s+\d|\bpp\.\s*\d|\bISBN\b|(?:^|\n)\s*(?:references|bibliography|literatur(?:e|verzeichnis)?)\s*\n/i;

/** The DOIs of a page that no reference has. */
function doisOf({ text }: Page, later: boolean): string[] {
  const low = text.toLowerCase();
  return findDois(text).filter((doi) => {
    const at = Math.max(0, low.indexOf(doi.toLowerCase()));
    const before = text.slice(Math.max(0, at - 300), at);
    return !REFERENCE.test(before) && !(later && REFERENCE_LATER.test(text.slice(Math.max(0, at - 2000), at)));
  });
}

/** The DOI of the first page: the only one, or else the first that stands by itself and not in a sentence. */
function printedDoi(cells: Cell[], page: Page | undefined): string | undefined {
  const all = page ? doisOf(page, false) : [];
  if (all.length < 2) return all[0];
  return cells
    .filter((c) => c.text.split(' ').length <= 8)
    .flatMap((c) => findDois(c.text))
    .find((doi) => all.some((one) => one.toLowerCase() === doi.toLowerCase()));
}

/** A DOI on a later page is the document's own only if it is the only one of all; else it may be a reference. */
function soleDoi(pages: Page[]): string | undefined {
  const all = new Set(pages.flatMap((p) => findDois(p.text.toLowerCase())));
  const own = pages.slice(1).flatMap((p) => doisOf(p, true));
  return all.size === 1 ? own[0] : undefined;
}

/** Metadata that the page bears out is spelt as the page cannot show it; else the page is believed. */
function readTitleOf(
  found: FoundTitle | undefined,
  cells: Cell[],
  front: string,
  embedded: Embedded,
  fileName: string,
  put: Put,
): void {
  const meta = isUsableTitle(embedded.title, fileName) ? embedded.title.replace(/\s+/g, ' ').trim() : undefined;
  const key = meta ? lettersOf(meta) : '';
  const shown = found ? lettersOf(found.title) : '';
  const printed = key.length > 10 && lettersOf(front).includes(key);
  // The page has a subtitle or an article the file leaves out, or the file a version the page has in a line of its own.
  const more =
    (shown.length > key.length && (shown.startsWith(key) || (shown.endsWith(key) && shown.length < key.length + 4))) ||
    (shown !== '' && key.startsWith(shown) && /^v(?:ersion)?\d/.test(key.slice(shown.length)));
  const alike = shown !== '' && (shown === key || (printed && (more || key.startsWith(shown) || shown.includes(key))));
  if (key && alike) put('title', more ? found!.title : meta!, 'embedded metadata', 0.95);
  else if (key && printed && ((found?.sure ?? 0) < 0.7 || standsAlone(cells, key)))
    put('title', meta, 'embedded metadata', 0.9);
  else if (found) put('title', found.title, 'page layout', found.sure);
  else if (meta && !isReadable(front)) put('title', meta, 'embedded metadata', 0.5);
  else put('title', titleFromFileName(fileName), 'file name', 0.2);
}

/** Whether whole lines of the page, one after another, are this and nothing else. */
function standsAlone(cells: Cell[], key: string): boolean {
  const lines = cells.map((c) => lettersOf(c.text));
  return lines.some((_, from) => {
    let text = '';
    for (let i = from; i < lines.length && text.length < key.length; i += 1) text += lines[i]!;
    return text === key;
  });
}

function authorsOf(
  page: Page | undefined,
  cells: Cell[],
  found: FoundTitle | undefined,
  embedded: Embedded,
): { names: Name[]; from: Origin; sure: number } | undefined {
  const meta = (embedded.authors ?? []).flatMap(peopleOfField);
  if (!page || !isReadable(page.text))
    return meta.length ? { names: meta, from: 'embedded metadata', sure: 0.4 } : undefined;
  const printed = found ? readAuthors(cells, found, page.height) : [];
  const key = (n: Name): string => lettersOf(n.family ?? n.literal ?? '');
  const text = lettersOf(page.text);
  const borneOut = meta.filter((n) => key(n).length > 1 && text.includes(key(n)));
  const shown = new Set(printed.map(key));
  // The page has all that the file names, and more: the file forgot some.
  if (printed.length && borneOut.every((n) => shown.has(key(n))))
    return { names: printed, from: 'page layout', sure: borneOut.length ? 0.9 : 0.6 };
  if (borneOut.length && borneOut.length === meta.length)
    return { names: borneOut, from: 'embedded metadata', sure: 0.9 };
  if (printed.length) return { names: printed, from: 'page layout', sure: 0.6 };
  return borneOut.length ? { names: borneOut, from: 'embedded metadata', sure: 0.7 } : undefined;
}

/** The line of the periodical, over the title or at the foot, or in a note that says where the work appeared. */
function printedIn(cells: Cell[]): CitationLine | undefined {
  for (const cell of cells) {
    const line = citationLine(cell.text);
    if (line) return line;
  }
  return undefined;
}

/** The date of the work: of its periodical, stated at its front, or of its notice of copyright. Never that of the file. */
function dateOf(
  cells: Cell[],
  found: FoundTitle | undefined,
  line: CitationLine | undefined,
  text: string,
): { value: DateValue; sure: number } | undefined {
  if (line?.year) return { value: { 'date-parts': [[line.year]] }, sure: 0.8 };
  const last = found?.cells.at(-1)?.row ?? 0;
  const end = cells.find((c) => c.row > last && isProse(c))?.row ?? Infinity;
  for (const cell of cells) {
    if (cell.row >= end) break;
    const value = statedDate(cell.text);
    if (value) return { value, sure: 0.7 };
  }
  const year = noticeYear(text);
  return year ? { value: { 'date-parts': [[year]] }, sure: 0.7 } : undefined;
}

/** False where the pages hold pictures, or signs of a font that does not say which letters they are. */
function isReadable(text: string): boolean {
  const letters = text.match(/\p{L}/gu)?.length ?? 0;
  return letters > 10 && letters > text.replace(/[\s\d.·…]/g, '').length * 0.5;
}

export function isUsableTitle(title: string | undefined, fileName: string): title is string {
  if (!title) return false;
  const t = title.trim();
  if (t.length < 4 || !/\p{L}{2}/u.test(t) || isPlaceholder(t)) return false;
  if (
    /\.(docx?|pdf|tex|dvi|indd|qxd|rtf|odt|wpd|xlsx?|pptx?|ps)$/i.test(t) ||
    /^(microsoft word|untitled|document\d*$|slide 1|scan)/i.test(t)
  )
    return false;
  return t.toLowerCase() !== fileName.replace(/\.[^.]+$/, '').toLowerCase();
}

export function titleFromFileName(name: string): string {
  return (
    name
      .replace(/\.[^.]+$/, '')
      .replace(/[_+]+/g, ' ')
      .replace(/\s+/g, ' ')
      .trim() || 'Untitled document'
  );
}
