/** Recognises the text of a picture of a page. */
import { readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import { textOf } from '../run.ts';

export interface RecognisedWord {
  text: string;
  /** In percent. */
  confidence: number;
}

export interface Recognised {
  pdf: Buffer;
  /** The words of each page, in their order. */
  pages: RecognisedWord[][];
}

/** Tesseract's table: page in the second column, in the last two how sure it is of a word and the word; -1 is of no word. */
function wordsIn(tsv: string): RecognisedWord[][] {
  const pages: RecognisedWord[][] = [];
  for (const row of tsv.split('\n').slice(1)) {
    const cells = row.split('\t');
    const [page, confidence, text] = [Number(cells[1]), Number(cells[10]), cells[11]?.trim()];
    if (!text || !(confidence >= 0) || !page) continue;
    (pages[page - 1] ??= []).push({ text, confidence });
  }
  return Array.from(pages, (words) => words ?? []);
}

/**
 * A picture (PNG, JPEG, TIFF, WebP) as a PDF: its pages as they look, and over them, unseen, the words that were recognised.
 * English and what shares its letters. One thread: several are slower where other work runs beside (docs/measurements.md).
 * @returns nothing where it is no picture that can be opened, or too large to be read within the limits
 */
export async function pictureToPdf(path: string): Promise<Recognised | undefined> {
  const base = join(tmpdir(), `pandecta-picture-${randomUUID()}`);
  try {
    const { code } = await textOf('tesseract', [path, base, '-l', 'eng', 'pdf', 'tsv'], { OMP_THREAD_LIMIT: '1' });
    if (code !== 0) return undefined;
    return { pdf: await readFile(`${base}.pdf`), pages: wordsIn(await readFile(`${base}.tsv`, 'utf8')) };
  } catch {
    return undefined;
  } finally {
    for (const made of ['pdf', 'tsv']) await rm(`${base}.${made}`, { force: true });
  }
}

/** Dots an inch: what is printed in the size of a footnote is still told apart (common practice: 200 to 300). */
const RESOLUTION = '200';

/**
 * A PDF whose pages are pictures, as one that has their words too: each page drawn, recognised, and put together again. A page
 * that cannot be recognised is left as it was.
 *
 * @param folder for what is made on the way; the result lies in it
 * @param onPage told before each page; may throw to stop
 * @returns the path of the result with the words of each page, or nothing where the pages cannot be put together
 */
export async function scanToPdf(
  path: string,
  pages: number,
  folder: string,
  onPage: (page: number) => Promise<void>,
): Promise<{ path: string; pages: RecognisedWord[][] } | undefined> {
  const parts: string[] = [];
  const words: RecognisedWord[][] = [];
  for (let page = 1; page <= pages; page += 1) {
    await onPage(page);
    const n = String(page);
    const base = join(folder, `page-${n}`);
    await textOf('pdftoppm', ['-r', RESOLUTION, '-gray', '-png', '-f', n, '-l', n, '-singlefile', path, base]);
    const read = await pictureToPdf(`${base}.png`);
    const part = `${base}.pdf`;
    words.push(read?.pages[0] ?? []);
    if (read) await writeFile(part, read.pdf);
    else await textOf('pdfseparate', ['-f', n, '-l', n, path, part]);
    await rm(`${base}.png`, { force: true });
    parts.push(part);
  }
  if (parts.length === 1) return { path: parts[0]!, pages: words };
  const whole = join(folder, 'whole.pdf');
  const { code } = await textOf('pdfunite', [...parts, whole]);
  return code === 0 ? { path: whole, pages: words } : undefined;
}
