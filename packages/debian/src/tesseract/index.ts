/** Recognises the text of a picture of a page. */
import { readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import { textOf } from '../run.ts';

/**
 * A picture (PNG, JPEG, TIFF, WebP) as a PDF: its pages as they look, and over them, unseen, the words that were recognised.
 * English and what shares its letters. One thread: several are slower where other work runs beside (docs/measurements.md).
 * @returns nothing where it is no picture that can be opened, or too large to be read within the limits
 */
export async function pictureToPdf(path: string): Promise<Buffer | undefined> {
  const base = join(tmpdir(), `pandecta-picture-${randomUUID()}`);
  try {
    const { code } = await textOf('tesseract', [path, base, '-l', 'eng', 'pdf'], { OMP_THREAD_LIMIT: '1' });
    return code === 0 ? await readFile(`${base}.pdf`) : undefined;
  } catch {
    return undefined;
  } finally {
    await rm(`${base}.pdf`, { force: true });
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
 * @returns the path of the result, or nothing where the pages cannot be put together
 */
export async function scanToPdf(
  path: string,
  pages: number,
  folder: string,
  onPage: (page: number) => Promise<void>,
): Promise<string | undefined> {
  const parts: string[] = [];
  for (let page = 1; page <= pages; page += 1) {
    await onPage(page);
    const n = String(page);
    const base = join(folder, `page-${n}`);
    await textOf('pdftoppm', ['-r', RESOLUTION, '-gray', '-png', '-f', n, '-l', n, '-singlefile', path, base]);
    const read = await pictureToPdf(`${base}.png`);
    const part = `${base}.pdf`;
    if (read) await writeFile(part, read);
    else await textOf('pdfseparate', ['-f', n, '-l', n, path, part]);
    await rm(`${base}.png`, { force: true });
    parts.push(part);
  }
  if (parts.length === 1) return parts[0];
  const whole = join(folder, 'whole.pdf');
  const { code } = await textOf('pdfunite', [...parts, whole]);
  return code === 0 ? whole : undefined;
}
