/** What a PDF says of the numbers of its pages. */
import { readFile, stat } from 'node:fs/promises';
import type { PDFArray, PDFDict, PDFName, PDFNumber, PDFString, PDFHexString } from '@cantoo/pdf-lib';
import {
  candidatesOf,
  printedRuns,
  type Candidate,
  type NumberRun,
  type NumberStyle,
} from '@pandecta/core/page-numbers';
import { pdfPages } from '@pandecta/debian/poppler';

/** In bytes: a larger one would not fit beside what else a worker holds. */
const LARGEST = 100 * 1024 ** 2;
/** More runs than any document has. */
const MOST_RUNS = 10_000;
/** Table 159 of ISO 32000-1. */
const STYLES: Record<string, NumberStyle> = { D: 'decimal', R: 'ROMAN', r: 'roman', A: 'LETTERS', a: 'letters' };

/** The page labels of a PDF (ISO 32000-1, 12.4.2): a number tree (7.9.7) of where each run begins. None where it has none. */
export async function pageLabels(path: string): Promise<NumberRun[]> {
  if ((await stat(path)).size > LARGEST) return [];
  const lib = await import('@cantoo/pdf-lib');
  const name = (key: string): PDFName => lib.PDFName.of(key);
  const document = await lib.PDFDocument.load(await readFile(path), { ignoreEncryption: true, updateMetadata: false });
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

/** The numbers that stand on the pages of a PDF. */
export async function printedNumbers(path: string): Promise<NumberRun[]> {
  const candidates: Candidate[][] = [];
  for await (const page of pdfPages(path)) candidates[page.number - 1] = candidatesOf(page);
  return printedRuns(Array.from(candidates, (c) => c ?? []));
}
