/** A PDF, read; where its pages are pictures their text is recognised, and it goes on as a PDF that has both. */
import { createReadStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { scanToPdf } from '@pandecta/debian/tesseract';
import type { Services } from '../services.ts';
import { keepConfidence } from './confidence.ts';
import { readPdf, type ReadPdf } from './read-pdf.ts';

/** A page takes some seconds: what is longer keeps its pictures alone. */
export const MOST_SCANNED_PAGES = 300;

/**
 * @param says told how far it is, as a sentence; may throw to stop
 * @returns the PDF as it came, and the same with recognised words, where it had none and some were found
 */
export async function readOrRecognise(
  services: Pick<Services, 'db' | 'workers' | 'storage'>,
  workspace: { id: string; number: number },
  input: Parameters<typeof readPdf>[2],
  says: (done: number, total: number, sentence: string) => Promise<void>,
): Promise<{ read: ReadPdf; recognised: ReadPdf | undefined }> {
  const read = await readPdf(services, workspace, input, (d, t) => says(d, t, `page ${d} of ${t}`));
  const { state, pages } = read;
  if (state !== 'image only' || pages > MOST_SCANNED_PAGES) return { read, recognised: undefined };
  const recognised = await readScan(services, workspace, { ...input, pages }, (page) =>
    says(page - 1, pages, `recognising the text of page ${page} of ${pages}`),
  );
  return { read, recognised };
}

/**
 * @param onPage told before each page; may throw to stop
 * @returns the PDF with the words, read; or nothing where no words were found
 */
async function readScan(
  services: Pick<Services, 'db' | 'workers' | 'storage'>,
  workspace: { id: string; number: number },
  scan: { name: string; path: string; pages: number },
  onPage: (page: number) => Promise<void>,
): Promise<ReadPdf | undefined> {
  const folder = await mkdtemp(join(tmpdir(), 'pandecta-scan-'));
  try {
    const made = await scanToPdf(scan.path, scan.pages, folder, onPage);
    if (!made) return undefined;
    const stored = await services.storage.put(createReadStream(made.path));
    const name = scan.name.replace(/(?:\.pdf)?$/i, ' (with its text).pdf');
    const input = { ...stored, name, path: services.storage.path(stored.sha256) };
    const read = await readPdf(services, workspace, input, async () => {});
    await keepConfidence(services.db, workspace.id, read.fileId, made.pages);
    return read.state === 'text' ? read : undefined;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
