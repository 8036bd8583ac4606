/** What poppler's programs say of a PDF. */
import { BboxReader, readXmp, type Embedded, type Page } from '@pandecta/core/documents';
import { normaliseDoi } from '@pandecta/core/identifiers';
import { run, textOf } from '../run.ts';

export interface PdfInfo {
  state: 'sound' | 'encrypted' | 'damaged';
  pages: number;
  embedded: Embedded;
}

/** Page count, Info dictionary and XMP; says when the file cannot be opened. */
export async function pdfInfo(path: string): Promise<PdfInfo> {
  const [info, meta] = await Promise.all([
    textOf('pdfinfo', ['-enc', 'UTF-8', path]),
    textOf('pdfinfo', ['-meta', path]),
  ]);
  if (info.code !== 0) {
    const locked = /Incorrect password|encrypted/i.test(info.err);
    return { state: locked ? 'encrypted' : 'damaged', pages: 0, embedded: {} };
  }
  const field = (name: string): string | undefined =>
    new RegExp(`^${name}:[ \\t]+(\\S.*)$`, 'm').exec(info.out)?.[1]?.trim();
  const pages = Number(field('Pages') ?? 0);
  return { state: 'sound', pages, embedded: readEmbedded(field, meta.out) };
}

/** XMP is preferred to the Info dictionary, which it replaced (ISO 32000-2, 14.3.3). */
function readEmbedded(field: (name: string) => string | undefined, meta: string): Embedded {
  const xmp = readXmp(meta);
  const signed = field('Author');
  const authors = xmp.creators.length ? xmp.creators : signed ? [signed] : [];
  const keywords = xmp.subjects.length
    ? xmp.subjects
    : (field('Keywords')?.split(/[;,]/) ?? []).map((k) => k.trim()).filter(Boolean);
  const doi = normaliseDoi(xmp.identifiers[0] ?? field('Subject')?.match(/10\.\d{4,9}\/\S+/)?.[0] ?? '');
  const title = xmp.titles[0] ?? field('Title');
  return {
    ...(title ? { title } : {}),
    ...(authors.length ? { authors } : {}),
    ...(keywords.length ? { keywords } : {}),
    ...(doi ? { doi } : {}),
  };
}

/** Which pages lie on their side: their own `Rotate` is a quarter or three. */
async function sideways(path: string): Promise<Set<number>> {
  const { out } = await textOf('pdfinfo', ['-f', '1', '-l', '-1', path]);
  return new Set([...out.matchAll(/^Page +(\d+) rot: +(?:90|270)$/gm)].map((m) => Number(m[1])));
}

/** The pages of a PDF with the place of every word, as they are shown: what the crop box leaves, turned as the page says. */
export async function* pdfPages(path: string): AsyncGenerator<Page, void> {
  const turned = sideways(path).catch(() => new Set<number>());
  const r = run('pdftotext', ['-bbox-layout', '-cropbox', '-enc', 'UTF-8', path, '-']);
  const reader = new BboxReader();
  try {
    // Poppler gives the places of words on the page as it is shown, but the size of the page before it is turned.
    const upright = (page: Page, aside: Set<number>): Page =>
      aside.has(page.number) ? { ...page, width: page.height, height: page.width } : page;
    for await (const chunk of r.out.setEncoding('utf8'))
      for (const page of reader.push(chunk as string)) yield upright(page, await turned);
    for (const page of reader.push('\n')) yield upright(page, await turned);
    await r.done;
  } finally {
    r.stop();
  }
}

/** Draws a page as a PNG, in greys. @param resolution dots an inch @returns its path */
export async function drawPage(path: string, page: number, base: string, resolution: number): Promise<string> {
  return draw(path, page, base, resolution, ['-gray']);
}

/** Draws a part of a page as a PNG. @param rect in points, on the page as it is shown @returns its path */
export async function drawRegion(
  path: string,
  page: number,
  { x0, y0, x1, y1 }: { x0: number; y0: number; x1: number; y1: number },
  base: string,
  resolution: number,
): Promise<string> {
  const dots = (points: number): string => String(Math.max(0, Math.round((points * resolution) / 72)));
  const size = ['-W', dots(Math.max(1, x1 - x0)), '-H', dots(Math.max(1, y1 - y0))];
  return draw(path, page, base, resolution, ['-cropbox', '-x', dots(x0), '-y', dots(y0), ...size]);
}

async function draw(path: string, page: number, base: string, resolution: number, how: string[]): Promise<string> {
  const n = String(page);
  await textOf('pdftoppm', ['-r', String(resolution), '-png', '-f', n, '-l', n, ...how, '-singlefile', path, base]);
  return `${base}.png`;
}

/** One page of a PDF as a PDF of its own. @returns whether it could be made */
export async function partPage(path: string, page: number, to: string): Promise<boolean> {
  const n = String(page);
  return (await textOf('pdfseparate', ['-f', n, '-l', n, path, to])).code === 0;
}
