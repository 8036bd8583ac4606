/**
 * The order in which two-column documents are read: their paragraphs beside the source they were made of (pandoc's reading of the
 * LaTeX that lies beside the PDF), and beside the order in which TeX wrote them into the file (pdftotext -raw). A paragraph is
 * right where its words follow each other without another's between them, and it stands after the one before it.
 */
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { paragraphsOf, runningLines, type Page } from '@pandecta/core/documents';
import { pdfPages } from '@pandecta/debian/poppler';
import { table } from './measure.ts';
import { folderOfDocuments, percent, realDocuments } from './reading/documents.ts';

const EACH = Number(process.env.PANDECTA_BENCH_EACH ?? 40);
const HALF = process.env.PANDECTA_BENCH_HALF ?? 'unseen';
const show = process.env.SHOW;

const wordsOf = (text: string): string[] => text.normalize('NFKD').toLowerCase().replace(/(\p{L})-\s+(?=\p{Ll})/gu, '$1').match(/\p{L}+/gu) ?? []; // prettier-ignore
/** So many words that follow each other are sought together. */
const RUN = 5;
const FEWEST_WORDS = 15;

interface Judged {
  right: number;
  of: number;
  wrong: string[];
}

/** Each paragraph looked for among the words that were read. */
function judge(paragraphs: string[][], read: string[]): Judged {
  const at = new Map<string, number[]>();
  for (let i = 0; i + RUN <= read.length; i += 1) {
    const key = read.slice(i, i + RUN).join(' ');
    const known = at.get(key);
    if (known) known.push(i);
    else at.set(key, [i]);
  }
  const out: Judged = { right: 0, of: 0, wrong: [] };
  const whole: { start: number; words: string[] }[] = [];
  for (const words of paragraphs) {
    if (words.length < FEWEST_WORDS) continue;
    const places: number[] = [];
    for (let i = 0; i + RUN <= words.length; i += 1) {
      // Of words that are repeated nothing can be said.
      const found = at.get(words.slice(i, i + RUN).join(' '));
      if (found?.length === 1) places.push(found[0]! - i);
    }
    // What is not printed (a macro of its own, a formula) cannot be judged.
    if (places.length < 3) continue;
    out.of += 1;
    const start = places[0]!;
    // Formulae and citations that the source has otherwise put the words off by some.
    const slack = 12 + words.length * 0.15;
    if (places.filter((p) => Math.abs(p - start) <= slack).length >= places.length * 0.9) whole.push({ start, words });
    else out.wrong.push(`parted: ${words.slice(0, 9).join(' ')}`);
  }
  // One that is out of its place makes those after it no less right: the longest row that stands in order is.
  const inOrder = longestRising(whole.map((w) => w.start));
  out.right = inOrder.size;
  whole.forEach(({ words }, i) => inOrder.has(i) || out.wrong.push(`out of order: ${words.slice(0, 9).join(' ')}`));
  return out;
}

/** Which of the numbers make the longest row that rises. */
function longestRising(numbers: number[]): Set<number> {
  const length = numbers.map(() => 1);
  const from = numbers.map(() => -1);
  numbers.forEach((n, i) => {
    for (let k = 0; k < i; k += 1)
      if (numbers[k]! < n && length[k]! >= length[i]!) [length[i], from[i]] = [length[k]! + 1, k];
  });
  const out = new Set<number>();
  for (let i = length.indexOf(Math.max(0, ...length)); i >= 0; i = from[i]!) out.add(i);
  return out;
}

/** Most lines stand wholly in the left or the right half of the page, on most pages. */
function isInTwoColumns(pages: Page[]): boolean {
  const two = pages.filter(({ lines, width }) => {
    const long = lines.filter((l) => l.text.length > 25);
    const right = long.filter((l) => l.box.x0 > width * 0.47).length;
    const left = long.filter((l) => l.box.x1 < width * 0.53).length;
    return long.length > 20 && left + right > long.length * 0.7 && Math.min(left, right) > long.length * 0.2;
  });
  return two.length > pages.length * 0.5;
}

function source(path: string): string[][] | undefined {
  for (const name of [path.replace(/\.pdf$/, '.tex'), path.replace(/\.pdf$/, '.tex.gz')]) {
    if (!existsSync(name)) continue;
    const bytes = readFileSync(name);
    const input = name.endsWith('.gz') ? gunzipSync(bytes) : bytes;
    try {
      const text = execFileSync('pandoc', ['-f', 'latex', '-t', 'plain', '--wrap=none'], { input, stdio: 'pipe' });
      return (
        text
          .toString()
          .split(/\n\n+/)
          // Notes stand at its end.
          .filter((p) => !/^\[\d+\]/.test(p))
          .map(wordsOf)
      );
    } catch {
      return undefined;
    }
  }
  return undefined;
}

const sums = { 'beside their source': [0, 0, 0, 0], 'beside the order in the file': [0, 0, 0, 0] };
let documents = 0;
for (const { path, half } of realDocuments(folderOfDocuments())) {
  if (half !== HALF || documents >= EACH) continue;
  const pages: Page[] = [];
  for await (const page of pdfPages(path)) if (pages.push(page) >= 30) break;
  if (!pages.length || !isInTwoColumns(pages)) continue;
  documents += 1;
  const running = runningLines(pages);
  const read = pages.flatMap((p) => paragraphsOf(p, running));
  const paragraphs = read.map((p) => wordsOf(p.text));
  // Notes are read after the text of their page, and stand in the file at the foot of their column.
  const text = read.filter((p) => p.kind !== 'note').map((p) => wordsOf(p.text));
  const raw = execFileSync('pdftotext', ['-raw', '-l', '30', path, '-'], { maxBuffer: 1 << 28 }).toString();
  const judged: [keyof typeof sums, Judged][] = [['beside the order in the file', judge(text, wordsOf(raw))]];
  const original = source(path);
  if (original) judged.push(['beside their source', judge(original, paragraphs.flat())]);
  for (const [by, { right, of, wrong }] of judged) {
    const sum = sums[by];
    if (!of) continue;
    sum[0]! += 1;
    sum[1]! += of;
    sum[2]! += right;
    sum[3]! += right >= of * 0.95 ? 1 : 0;
    if (show && wrong.length) console.log(`${path} ${by}: ${right} of ${of}; ${wrong.slice(0, 4).join(' | ')}`);
  }
}
table(
  `Reading order of two-column documents (${HALF})`,
  ['judged', 'documents', 'paragraphs', 'right', 'documents with at least 95 %'],
  Object.entries(sums).map(([by, [d, of, right, good]]) => [
    by,
    String(d),
    String(of),
    percent(right!, of!),
    String(good),
  ]),
);
process.exit(0);
