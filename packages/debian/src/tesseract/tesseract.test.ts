import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { afterAll, expect, test } from 'vitest';
import type { Page } from '@pandecta/core/documents';
import { pdfPages } from '../poppler/index.ts';
import { pictureToPdf } from './index.ts';

const folder = mkdtempSync(join(tmpdir(), 'pandecta-tesseract-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const firstPage = async (path: string): Promise<Page | undefined> => {
  for await (const page of pdfPages(path)) return page;
};

test.each(['png', 'jpeg', 'tiff'])('a page drawn as a %s has its words back, where they stood', async (kind) => {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.TimesRoman);
  const page = doc.addPage([420, 300]);
  page.drawText('Sediment behind closed barriers', { x: 40, y: 240, size: 18, font });
  page.drawText('The gate was shut in the spring of 1872.', { x: 40, y: 200, size: 12, font });
  const path = join(folder, 'page.pdf');
  writeFileSync(path, await doc.save());
  execFileSync('pdftoppm', [`-${kind}`, '-r', '200', '-singlefile', path, join(folder, kind)]);
  const read = await pictureToPdf(join(folder, `${kind}.${{ png: 'png', jpeg: 'jpg', tiff: 'tif' }[kind]}`));
  const made = join(folder, `${kind}-read.pdf`);
  writeFileSync(made, read!.pdf);
  expect(read!.pages[0]!.map((w) => w.text).join(' ')).toContain('The gate was shut');
  expect(Math.min(...read!.pages[0]!.map((w) => w.confidence))).toBeGreaterThan(50);
  const [got, drawn] = await Promise.all([made, path].map(firstPage));
  expect(got!.text.replace(/\s+/g, ' ')).toBe(
    'Sediment behind closed barriers The gate was shut in the spring of 1872.',
  );
  // Poppler places the words of the page it was drawn from: each is there again within a hundredth of the page's width.
  const places = (page: Page | undefined): number[] => page!.words.map(({ box }) => box.x0 / page!.width);
  const off = places(got).map((x, i) => Math.abs(x - places(drawn)[i]!));
  expect(Math.max(...off)).toBeLessThan(0.01);
});

test('what is no picture gives nothing, and says nothing worse', async () => {
  const path = join(folder, 'no.png');
  writeFileSync(path, '\x89PNG\r\nnothing more');
  expect(await pictureToPdf(path)).toBeUndefined();
});
