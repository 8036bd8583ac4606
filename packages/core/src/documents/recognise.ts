/**
 * Makes a first record of a document from what it carries: identifiers in its first pages, its embedded metadata,
 * and the look of its first page. Every field says where it came from and how sure it is (0 to 1).
 */
import { findArxivIds, findDois, findIsbns } from '../identifiers/index.ts';
import { parseDate, parseName, type Name, type SourceRecord } from '../source/index.ts';
import { titleKey } from '../matching/index.ts';
import type { Page, PageLine } from './page.ts';

export type Origin =
  | 'document identifier'
  | 'embedded metadata'
  | 'page layout'
  | 'file name'
  | 'identifier registry'
  | 'import'
  | 'person';

export interface Provenance {
  [field: string]: { from: Origin; sure: number };
}

/** What the file says of itself: the Info dictionary (ISO 32000-1, 14.3.3) and XMP (ISO 16684-1). */
export interface Embedded {
  title?: string;
  authors?: string[];
  keywords?: string[];
  doi?: string;
  date?: string;
}

export interface Recognised {
  record: SourceRecord;
  subjects: string[];
  provenance: Provenance;
}

export function recognise(pages: Page[], embedded: Embedded, fileName: string): Recognised {
  const record: SourceRecord = { type: 'document' };
  const provenance: Provenance = {};
  const put = (
    field: 'title' | 'author' | 'DOI' | 'ISBN' | 'number' | 'archive' | 'issued' | 'type',
    value: unknown,
    from: Origin,
    sure: number,
  ): void => {
    (record as Record<string, unknown>)[field] = value;
    provenance[field] = { from, sure };
  };
  const front = pages
    .slice(0, 3)
    .map((p) => p.text)
    .join('\n');
  const doi = embedded.doi ?? findDois(pages[0]?.text ?? '')[0] ?? soleDoi(front);
  if (doi) {
    put('DOI', doi, embedded.doi ? 'embedded metadata' : 'document identifier', embedded.doi ? 0.95 : 0.9);
    put('type', 'article-journal', 'document identifier', 0.6);
  }
  const isbn = findIsbns(front)[0];
  if (isbn && !doi) {
    put('ISBN', isbn, 'document identifier', 0.9);
    put('type', 'book', 'document identifier', 0.7);
  }
  const arxiv = findArxivIds(front)[0];
  if (arxiv && !doi) {
    put('number', arxiv, 'document identifier', 0.9);
    put('archive', 'arXiv', 'document identifier', 0.9);
    put('type', 'article', 'document identifier', 0.8);
  }
  const layout = readLayout(pages[0]);
  if (layout && layout.sure >= 0.6) put('title', layout.title, 'page layout', layout.sure);
  if (isUsableTitle(embedded.title, fileName)) {
    const agrees = layout && titleKey(layout.title) === titleKey(embedded.title);
    if (!record.title || agrees || !layout || layout.sure < 0.7)
      put('title', embedded.title, 'embedded metadata', agrees ? 0.95 : 0.7);
  }
  if (!record.title && layout) put('title', layout.title, 'page layout', layout.sure);
  if (!record.title) put('title', titleFromFileName(fileName), 'file name', 0.2);
  if (embedded.authors?.length) put('author', embedded.authors.map(parseName), 'embedded metadata', 0.7);
  else if (layout?.authors.length) put('author', layout.authors, 'page layout', 0.5);
  const date = embedded.date && parseDate(embedded.date.slice(0, 10));
  if (date && date['date-parts'])
    put('issued', { 'date-parts': [[date['date-parts'][0]![0]!]] }, 'embedded metadata', 0.3);
  return { record, subjects: embedded.keywords ?? [], provenance };
}

/** A DOI on a later page is the document's own only if it is the only one there; else it may be a reference. */
function soleDoi(text: string): string | undefined {
  const found = findDois(text);
  return found.length === 1 ? found[0] : undefined;
}

export function isUsableTitle(title: string | undefined, fileName: string): title is string {
  if (!title) return false;
  const t = title.trim();
  if (t.length < 6 || !/\p{L}{3}/u.test(t)) return false;
  if (
    /\.(docx?|pdf|tex|dvi|indd|qxd|rtf|odt|wpd)$/i.test(t) ||
    /^(microsoft word|untitled|document\d*$|title$|slide 1|scan)/i.test(t)
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

/** The title is the largest type in the upper part of the first page; the authors are the lines that follow it. */
export function readLayout(page: Page | undefined): { title: string; authors: Name[]; sure: number } | undefined {
  if (!page?.lines.length) return undefined;
  const upper = page.lines.filter((l) => l.box.y0 < page.height * 0.6 && /\p{L}{2}/u.test(l.text));
  if (!upper.length) return undefined;
  const body = median(page.lines.flatMap((l) => Array<number>(Math.ceil(l.text.length / 20)).fill(l.size)));
  const long = upper.filter((l) => l.text.replace(/[^\p{L}]/gu, '').length >= 4);
  const largest = Math.max(...long.map((l) => l.size));
  const first = page.lines.findIndex((l) => long.includes(l) && l.size >= largest * 0.97);
  if (first < 0) return undefined;
  let last = first;
  while (
    last + 1 < page.lines.length &&
    Math.abs(page.lines[last + 1]!.size - largest) < largest * 0.06 &&
    last - first < 5
  )
    last += 1;
  const title = page.lines
    .slice(first, last + 1)
    .map((l) => l.text)
    .join(' ')
    .replace(/\s+/g, ' ')
    .trim();
  if (title.length < 4 || title.length > 300) return undefined;
  const contrast = largest / (body || largest);
  const sure = contrast > 1.35 ? 0.8 : contrast > 1.12 ? 0.65 : 0.3;
  return { title, authors: readAuthors(page.lines.slice(last + 1, last + 6), largest), sure };
}

function readAuthors(lines: PageLine[], titleSize: number): Name[] {
  const out: Name[] = [];
  for (const line of lines) {
    if (
      line.size > titleSize * 1.05 ||
      /abstract|summary|introduction|university|department|institute|@|https?:|\d{4}/i.test(line.text)
    )
      break;
    const cleaned = line.text.replace(/^by\s+/i, '').replace(/[\d\p{No}*†‡§¶∗]+/gu, '');
    const names = cleaned
      .split(/\s*(?:,|;|·|\band\b|&)\s*/)
      .map((n) => n.trim())
      .filter(Boolean);
    if (!names.length || !names.every(looksLikeName)) break;
    out.push(...names.map(parseName));
  }
  return out;
}

function looksLikeName(text: string): boolean {
  const words = text.split(/\s+/);
  return (
    words.length >= 2 &&
    words.length <= 5 &&
    words.every((w) => /^(\p{Lu}[\p{L}'’.-]*|de|van|der|den|von|la|le|di|da|dos|y)$/u.test(w))
  );
}

function median(values: number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[sorted.length >> 1] ?? 0;
}
