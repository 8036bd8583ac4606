/** Recognises the text of a picture of a page. */
import { readFile, rm } from 'node:fs/promises';
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
