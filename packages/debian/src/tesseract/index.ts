/** Recognises the text of pictures of pages. */
import { readFile, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { textOf } from '../run.ts';

export interface RecognisedWord {
  text: string;
  /** In percent. */
  confidence: number;
  /** Whether it is taller than wide on the picture: Tesseract reads lines that run up or down as well, and leaves them so. */
  isTall: boolean;
}

export interface Recognised {
  /** Of the PDF: the pages as they look, and over them, unseen, the words. */
  path: string;
  /** The words of each page, in their order. */
  pages: RecognisedWord[][];
}

/** One thread: several are slower where other work runs beside (docs/measurements.md). */
const ONE_THREAD = { OMP_THREAD_LIMIT: '1' };

/** The languages that are installed, by Tesseract's names ("eng", "deu"); each is a Debian package tesseract-ocr-NAME. */
export async function installedLanguages(): Promise<string[]> {
  const { out } = await textOf('tesseract', ['--list-langs']);
  return out
    .split('\n')
    .slice(1)
    .map((l) => l.trim())
    .filter((l) => /^[a-z]{3}(?:_\w+)?$/.test(l) && l !== 'osd');
}

/** Less sure than this of which way is up, a page stays as it lies (Tesseract's own measure; by trial on turned pages). */
const SURE = 1.5;

export type Turn = 0 | 90 | 180 | 270;

/** By how many degrees a picture is to be turned clockwise to stand upright; 0 where nothing says. Often wrong of italics. */
export async function quarterTurn(path: string): Promise<Turn> {
  const { out } = await textOf('tesseract', [path, '-', '--psm', '0', '-l', 'osd'], ONE_THREAD);
  const turn = Number(/^Rotate: (\d+)/m.exec(out)?.[1] ?? 0);
  const sure = Number(/^Orientation confidence: ([\d.]+)/m.exec(out)?.[1] ?? 0);
  return sure >= SURE && (turn === 90 || turn === 180 || turn === 270) ? turn : 0;
}

/** Tesseract's table: a word's box (left, top, width, height), then how sure it is of it (-1 where it is none) and the word. */
function wordsIn(tsv: string): RecognisedWord[] {
  return tsv
    .split('\n')
    .slice(1)
    .flatMap((row) => {
      const cells = row.split('\t');
      const [confidence, text] = [Number(cells[10]), cells[11]?.trim()];
      const isTall = Number(cells[9]) > Number(cells[8]);
      return text && confidence >= 0 ? [{ text, confidence, isTall }] : [];
    });
}

/**
 * A picture of one page (PNG, JPEG) as a PDF at `base`.pdf. The picture is to stand upright.
 * @returns nothing where it is no picture that can be opened, or too large to be read within the limits
 */
export async function recognisePage(
  { path, resolution }: Picture,
  base: string,
  languages: readonly string[],
): Promise<RecognisedWord[] | undefined> {
  const { code } = await textOf(
    'tesseract',
    [path, base, '-l', languages.join('+'), '--dpi', String(resolution), 'pdf', 'tsv'],
    ONE_THREAD,
  );
  try {
    return code === 0 ? wordsIn(await readFile(`${base}.tsv`, 'utf8')) : undefined;
  } catch {
    return undefined;
  } finally {
    await rm(`${base}.tsv`, { force: true });
  }
}

export interface Picture {
  path: string;
  /** In dots an inch: how large it is on paper. Not every picture says it where Tesseract looks. */
  resolution: number;
}

export interface ToRecognise {
  pages: number;
  languages: readonly string[];
  /** For what is made on the way; the result lies in it. */
  folder: string;
  /**
   * Draws a page at `base` with an ending of its own, turned clockwise by so many degrees from how it lies; nothing where it cannot,
   * or where its turn is settled and this is another.
   */
  draw(page: number, base: string, turn: Turn): Promise<Picture | undefined>;
  /** The page as it was, as a PDF at the path, for one that cannot be recognised; false where there is none. */
  leave(page: number, path: string): Promise<boolean>;
  /** Told before each page; may throw to stop. */
  onPage(page: number): Promise<void>;
}

/** In percent, the mean of a page's words: upright ones of the demo came to 96, the same on their head to 43 to 48. */
const UPRIGHT_FROM = 65;
/** Of fewer words a mean says nothing: a page is turned to what reads surely, or not at all. */
const FEW_WORDS = 5;
const sureOf = (words: RecognisedWord[]): number =>
  words.reduce((sum, w) => sum + w.confidence, 0) / Math.max(1, words.length);
/** By the longer words: a short one is taller than wide as it stands. */
function liesOnItsSide(words: RecognisedWord[]): boolean {
  const long = words.filter((w) => w.text.length >= 4);
  return long.filter((w) => w.isTall).length > long.length / 2;
}
const stands = (words: RecognisedWord[]): boolean =>
  words.length >= FEW_WORDS && sureOf(words) >= UPRIGHT_FROM && !liesOnItsSide(words);

/**
 * A page as it lies, if its words are recognised surely; else the way up in which they are recognised most surely. A page that reads
 * well from left to right is never turned: what Tesseract says of the way up is only where trying begins.
 */
async function recogniseUpright(
  { languages, folder, draw }: Pick<ToRecognise, 'languages' | 'folder' | 'draw'>,
  page: number,
): Promise<{ pdf: string; words: RecognisedWord[] } | undefined> {
  const turned = async (turn: Turn) => {
    const base = join(folder, `page-${page}-${turn}`);
    const picture = await draw(page, base, turn);
    const words = picture && (await recognisePage(picture, base, languages));
    return words && { pdf: `${base}.pdf`, words, path: picture.path };
  };
  let best = await turned(0);
  if (!best || stands(best.words)) return best;
  const likely = await quarterTurn(best.path);
  let least = best.words.length < FEW_WORDS || liesOnItsSide(best.words) ? UPRIGHT_FROM : sureOf(best.words);
  for (const turn of new Set<Turn>([likely, 180, 90, 270])) {
    const other = turn ? await turned(turn) : undefined;
    if (!other || other.words.length < FEW_WORDS || sureOf(other.words) <= least) continue;
    best = other;
    least = sureOf(other.words);
    if (stands(other.words)) break;
  }
  return best;
}

/** Pages drawn, recognised and put together: nothing where none of them can be, or they cannot be put together. */
export async function recognisePages({
  pages,
  languages,
  folder,
  draw,
  leave,
  onPage,
}: ToRecognise): Promise<Recognised | undefined> {
  // prettier-ignore
  const parts: string[] = [];
  const words: RecognisedWord[][] = [];
  for (let page = 1; page <= pages; page += 1) {
    await onPage(page);
    const part = join(folder, `part-${page}.pdf`);
    const read = await recogniseUpright({ languages, folder, draw }, page);
    if (read) await rename(read.pdf, part);
    else if (!(await leave(page, part))) return undefined;
    words.push(read?.words ?? []);
    parts.push(part);
  }
  const path = parts.length === 1 ? parts[0]! : join(folder, 'whole.pdf');
  if (parts.length !== 1 && (await textOf('pdfunite', [...parts, path])).code !== 0) return undefined;
  return { path, pages: words };
}
