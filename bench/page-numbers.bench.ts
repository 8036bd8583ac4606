/**
 * The page that is cited, on real documents: the numbers read from the pages beside the labels that TeX wrote into the same file
 * (which are kept from the reader for this), and the labels as read beside pdf.js. A page that bears its number is to have it; one that
 * bears none is to be given none but its own: its count in brackets is no fault.
 */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { citedPage, citedPages, isPlainCount, NumberReader, numberIn, runOf } from '@pandecta/core/page-numbers';
import { pdfPages } from '@pandecta/debian/poppler';
import { pdfInside } from '@pandecta/server/workers/pdf-inside';
import { table } from './measure.ts';
import { folderOfDocuments, percent, realDocuments } from './reading/documents.ts';

const EACH = Number(process.env.PANDECTA_BENCH_EACH ?? 30);
const HALF = process.env.PANDECTA_BENCH_HALF ?? 'unseen';
const show = process.env.SHOW;
const count = (path: string): number => {
  try {
    return Number(/^Pages:\s+(\d+)/m.exec(execFileSync('pdfinfo', [path], { stdio: 'pipe' }).toString())?.[1] ?? 0);
  } catch {
    return 0;
  }
};

/** Whether the label stands at the beginning or the end of one of the outer lines of a page. */
const bears = (lines: string[], label: string): boolean =>
  [...lines.slice(0, 2), ...lines.slice(-2)].some((line) => {
    const words = line.split(/[\s|·•–—-]+/).filter(Boolean);
    return words[0] === label || words.at(-1) === label;
  });

const KINDS = ['counting', 'with front matter, parts or other numbers'] as const;
const sums = Object.fromEntries(KINDS.map((k) => [k, { documents: 0, borne: 0, right: 0, unborne: 0, madeUp: 0 }]));
let [labelsRight, labelled] = [0, 0];
for (const { path, half } of realDocuments(folderOfDocuments())) {
  if (half !== HALF) continue;
  const pages = count(path);
  if (pages < 6 || pages > 400) continue;
  const { labels } = await pdfInside(path).catch(() => ({ labels: [] }));
  if (!labels.length) continue;
  const sum = sums[KINDS[isPlainCount(labels) ? 0 : 1]]!;
  if (sum.documents >= EACH) continue;
  const pdf = await getDocument({ data: new Uint8Array(readFileSync(path)), verbosity: 0 }).promise;
  const theirs = await pdf.getPageLabels();
  const truth = (page: number): string => numberIn(runOf(labels, page)!, page);
  for (let page = 1; page <= pages; page += 1) if (theirs?.[page - 1] === truth(page)) labelsRight += 1;
  labelled += pages;
  await pdf.loadingTask.destroy();
  const lines: string[][] = [];
  const reader = new NumberReader();
  for await (const page of pdfPages(path)) {
    lines[page.number] = [...page.lines]
      .sort((a, b) => a.box.y0 - b.box.y0)
      .map((l) => l.text)
      .filter((t) => t.trim());
    reader.take(page);
  }
  const cited = citedPages({ labels: [], printed: reader.read().printed, byHand: [] }, undefined, pages);
  const wrong: string[] = [];
  sum.documents += 1;
  for (let page = 1; page <= pages; page += 1) {
    const said = citedPage(cited, page);
    const isBorne = bears(lines[page] ?? [], truth(page));
    const number = said.replace(/^\[|\]$/g, '');
    // A number with a word before it (“DAFX-17”) is that number as it is printed.
    const isRight =
      number === truth(page) || (isBorne && /^\p{L}+[-–.]?\d+$/u.test(number) && number.endsWith(truth(page)));
    sum[isBorne ? 'borne' : 'unborne'] += 1;
    if (isBorne && isRight) sum.right += 1;
    // A count in brackets says that no number is known.
    if (!isBorne && !isRight && !said.startsWith('[') && cited.origin !== 'counted') sum.madeUp += 1;
    else if (!isBorne || isRight) continue;
    wrong.push(`${page}${isBorne ? '' : ' (bears none)'}: ${said} for ${truth(page)}`);
  }
  if (show && wrong.length)
    console.log(`${path} (${pages}): ${wrong.slice(0, 6).join('; ')} … ${wrong.length}; ${JSON.stringify(cited)}`);
}
table(
  `Page numbers as printed, beside the labels of the file (${HALF} documents)`,
  ['documents whose labels are', 'documents', 'pages that bear it', 'right', 'pages that bear none', 'given another'],
  Object.entries(sums).map(([name, s]) => [
    name,
    String(s.documents),
    String(s.borne),
    percent(s.right, s.borne),
    String(s.unborne),
    percent(s.madeUp, s.unborne),
  ]),
);
console.log(`\nLabels as read, beside pdf.js: ${percent(labelsRight, labelled)} of ${labelled} pages alike`);
process.exit(0);
