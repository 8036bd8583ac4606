/** Scans, read: pages that are pictures are put upright and their text is recognised; they go on as a PDF that has both. */
import { createReadStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { drawPage, partPage } from '@pandecta/debian/poppler';
import { recognisePages, type Picture, type ToRecognise, type Turn } from '@pandecta/debian/tesseract';
import type { Progress } from '../../queue/kind.ts';
import type { Services } from '../../services.ts';
import { keepConfidence } from './confidence.ts';
import { languagesFor } from './languages.ts';
import { renamed } from '../names.ts';
import { readPdf, type ReadPdf } from '../read-pdf.ts';

/** A page takes some seconds: what is longer keeps its pictures alone. */
export const MOST_SCANNED_PAGES = 300;

/** Dots an inch: what is printed in the size of a footnote is still told apart (common practice: 200 to 300). */
const RESOLUTION = 200;

type Reading = Pick<Services, 'db' | 'workers' | 'storage'>;
/** Told how far it is, in words that go on a sentence; may throw to stop. */
export type Says = (done: number, total: number, words: string) => Promise<void>;

/** Where the words are a sentence of their own. */
export const asSentences =
  (progress: Progress): Says =>
  (done, total, words) =>
    progress(done, total, words[0]!.toUpperCase() + words.slice(1));

/** A picture that is a page, or several: how it is turned and cut. */
export interface PagePicture {
  path: string;
  /** The page of a picture that has several, from 0. */
  page: number;
  /** Clockwise, in degrees; where it is not said, it is found out which way is up. */
  turn?: number;
  crop?: { left: number; top: number; width: number; height: number };
}

/**
 * A PDF, read, and its text recognised where its pages are pictures.
 * @param source the one the file belongs to: the language its record names is recognised too
 * @returns the PDF as it came, and the same with recognised words, where it had none and some were found
 */
export async function readOrRecognise(
  services: Reading,
  workspace: { id: string; number: number },
  input: Parameters<typeof readPdf>[2],
  says: Says,
  source?: string,
): Promise<{ read: ReadPdf; recognised: ReadPdf | undefined }> {
  const read = await readPdf(services, workspace, input, (d, t) => says(d, t, `page ${d} of ${t}`));
  const { state, pages } = read;
  if (state !== 'image only' || pages > MOST_SCANNED_PAGES) return { read, recognised: undefined };
  const languages = await languagesFor(services.db, workspace.id, source);
  const recognised = await recogniseScan(services, workspace, { ...input, pages }, { languages, says });
  return { read, recognised };
}

/**
 * @param keep pages that stay as they are, counted from 1
 * @returns the PDF with the words, read; or nothing where no words were found
 */
export async function recogniseScan(
  services: Reading,
  workspace: { id: string; number: number },
  { path, name, pages }: { name: string; path: string; pages: number },
  { languages, says, keep = new Set() }: { languages: string[]; says: Says; keep?: ReadonlySet<number> },
): Promise<ReadPdf | undefined> {
  const called = name.replace(/(?: \(with its text\))?(?:\.pdf)?$/i, ' (with its text).pdf');
  const read = await recognised(services, workspace, called, {
    pages,
    languages,
    onPage: (page) => says(page - 1, pages, `recognising the text of page ${page} of ${pages}`),
    draw: async (page, base, turn) =>
      keep.has(page) ? undefined : level(services, await drawPage(path, page, `${base}-drawn`, RESOLUTION), base, turn),
    leave: (page, to) => partPage(path, page, to),
  });
  return read?.state === 'text' ? read : undefined;
}

/** Pictures in their order as the pages of one document. @returns nothing where one cannot be opened, or no words were found */
export async function recognisePictures(
  services: Reading,
  workspace: { id: string; number: number },
  name: string,
  pictures: PagePicture[],
  { languages, says }: { languages: string[]; says: Says },
): Promise<ReadPdf | undefined> {
  const pages = pictures.length;
  return recognised(services, workspace, renamed(name, '.pdf'), {
    pages,
    languages,
    onPage: (page) => says(page - 1, pages, `recognising the text of page ${page} of ${pages}`),
    draw: (page, base, turn) => drawn(services, pictures[page - 1]!, base, turn),
    leave: () => Promise.resolve(false),
  });
}

/** The pages of a picture, as it came: one, or of a TIFF several. None of what cannot be opened. */
export async function pagesOfPicture({ workers }: Reading, path: string): Promise<PagePicture[]> {
  const count = Math.min(MOST_SCANNED_PAGES, await workers.run('picturePages', path));
  return Array.from({ length: count }, (_, page) => ({ path, page }));
}

/** A page of a picture, turned and cut as it is said, else as the picture says itself; then level. */
async function drawn(services: Reading, picture: PagePicture, base: string, turn: Turn): Promise<Picture | undefined> {
  // What a person said is upright is not tried in other ways.
  if (turn && picture.turn !== undefined) return undefined;
  const first = await services.workers.run('upright', { ...picture, base: `${base}-first` });
  return first && level(services, first.path, base, turn);
}

/** Turned, then laid level by the lines of the page. @param path is removed */
async function level({ workers }: Reading, path: string, base: string, turn: Turn): Promise<Picture | undefined> {
  const made = await workers.run('upright', { path, turn, level: true, base });
  await rm(path, { force: true });
  return made;
}

async function recognised(
  services: Reading,
  workspace: { id: string; number: number },
  name: string,
  what: Omit<ToRecognise, 'folder'>,
): Promise<ReadPdf | undefined> {
  const folder = await mkdtemp(join(tmpdir(), 'pandecta-scan-'));
  try {
    const made = await recognisePages({ ...what, folder });
    if (!made) return undefined;
    const stored = await services.storage.put(createReadStream(made.path));
    const input = { ...stored, name, path: services.storage.path(stored.sha256) };
    const read = await readPdf(services, workspace, input, async () => {});
    if (!read.wasRead) await keepConfidence(services.db, workspace.id, read.fileId, made.pages);
    return read;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
