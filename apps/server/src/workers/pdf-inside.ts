/** What stands in a PDF beside its pages: the labels of the pages, and what readers wrote on them. */
import { readFile, stat } from 'node:fs/promises';
import type { PDFArray, PDFDict, PDFDocument, PDFName, PDFNumber, PDFString, PDFHexString } from '@cantoo/pdf-lib';
import { shapeOf, type Annotation } from '@pandecta/core/annotations';
import { spanWithin } from '@pandecta/core/documents';
import { isOnWords, quoteAt } from '@pandecta/core/marks';
import { NumberReader, type NumberRun, type NumbersInText, type NumberStyle } from '@pandecta/core/page-numbers';
import { pdfPages } from '@pandecta/debian/poppler';
import { annotationsIn, type Lib } from './annotations.ts';

/** In bytes: a larger one would not fit beside what else a worker holds. */
const LARGEST = 100 * 1024 ** 2;
/** More runs than any document has. */
const MOST_RUNS = 10_000;
/** Table 159 of ISO 32000-1. */
const STYLES: Record<string, NumberStyle> = { D: 'decimal', R: 'ROMAN', r: 'roman', A: 'LETTERS', a: 'letters' };

export interface Inside {
  labels: NumberRun[];
  annotations: Annotation[];
}

/** Nothing of a file that is too large, or that cannot be taken apart. */
export async function pdfInside(path: string): Promise<Inside> {
  if ((await stat(path)).size > LARGEST) return { labels: [], annotations: [] };
  const lib = await import('@cantoo/pdf-lib');
  const document = await lib.PDFDocument.load(await readFile(path), { ignoreEncryption: true, updateMetadata: false });
  // In a locked file the texts of annotations are encrypted as well.
  const annotations = document.isEncrypted ? [] : annotationsIn(lib, document);
  return { labels: pageLabels(lib, document), annotations: await quoted(path, annotations) };
}

/** The words each annotation stands on, of the pages as poppler reads them. */
async function quoted(path: string, annotations: Annotation[]): Promise<Annotation[]> {
  const onWords = annotations.filter((a) => isOnWords(shapeOf(a.kind)!));
  if (!onWords.length) return annotations;
  const last = Math.max(...onWords.map((a) => a.page));
  for await (const page of pdfPages(path)) {
    for (const annotation of onWords.filter((a) => a.page === page.number)) {
      const span = spanWithin(page.words, annotation.rects);
      if (span) annotation.quote = quoteAt(page.text, span.start, span.end);
    }
    if (page.number >= last) break;
  }
  return annotations;
}

/** The page labels of a PDF (ISO 32000-1, 12.4.2): a number tree (7.9.7) of where each run begins. None where it has none. */
function pageLabels(lib: Lib, document: PDFDocument): NumberRun[] {
  const name = (key: string): PDFName => lib.PDFName.of(key);
  const out: NumberRun[] = [];
  const seen = new Set<PDFDict>();
  const walk = (node: PDFDict | undefined): void => {
    if (!node || seen.has(node) || out.length > MOST_RUNS) return;
    seen.add(node);
    const kids = node.lookupMaybe(name('Kids'), lib.PDFArray) as PDFArray | undefined;
    for (let i = 0; i < (kids?.size() ?? 0); i += 1) walk(kids!.lookupMaybe(i, lib.PDFDict));
    const nums = node.lookupMaybe(name('Nums'), lib.PDFArray) as PDFArray | undefined;
    for (let i = 0; nums && i + 1 < nums.size() && out.length <= MOST_RUNS; i += 2) {
      const label = nums.lookupMaybe(i + 1, lib.PDFDict);
      const at = nums.lookupMaybe(i, lib.PDFNumber);
      if (!label || !at) continue;
      const style = label.lookupMaybe(name('S'), lib.PDFName);
      const prefix = label.lookupMaybe(name('P'), lib.PDFString, lib.PDFHexString) as
        PDFString | PDFHexString | undefined;
      const start = label.lookupMaybe(name('St'), lib.PDFNumber) as PDFNumber | undefined;
      out.push({
        page: at.asNumber() + 1,
        style: STYLES[style?.decodeText() ?? ''] ?? 'none',
        prefix: (prefix?.decodeText() ?? '').slice(0, 40),
        start: start?.asNumber() ?? 1,
      });
    }
  };
  walk(document.catalog.lookupMaybe(name('PageLabels'), lib.PDFDict));
  return out.filter((r) => Number.isInteger(r.page) && Number.isInteger(r.start)).sort((a, b) => a.page - b.page);
}

/** The numbers that stand in the text of a PDF. */
export async function numbersInText(path: string): Promise<NumbersInText> {
  const reader = new NumberReader();
  for await (const page of pdfPages(path)) reader.take(page);
  return reader.read();
}
