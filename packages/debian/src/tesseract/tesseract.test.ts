import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { degrees, PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { afterAll, expect, test } from 'vitest';
import type { Page } from '@pandecta/core/documents';
import { pdfPages } from '../poppler/index.ts';
import { installedLanguages, quarterTurn, recognisePage, recognisePages } from './index.ts';

const folder = mkdtempSync(join(tmpdir(), 'pandecta-tesseract-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const firstPage = async (path: string): Promise<Page | undefined> => {
  for await (const page of pdfPages(path)) return page;
};

test.each(['png', 'jpeg'])('a page drawn as a %s has its words back, where they stood', async (kind) => {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.TimesRoman);
  const page = doc.addPage([420, 300]);
  page.drawText('Sediment behind closed barriers', { x: 40, y: 240, size: 18, font });
  page.drawText('The gate was shut in the spring of 1872.', { x: 40, y: 200, size: 12, font });
  const path = join(folder, 'page.pdf');
  writeFileSync(path, await doc.save());
  execFileSync('pdftoppm', [`-${kind}`, '-r', '200', '-singlefile', path, join(folder, kind)]);
  const made = join(folder, `${kind}-read.pdf`);
  const read = await recognisePage(
    { path: join(folder, `${kind}.${{ png: 'png', jpeg: 'jpg' }[kind]}`), resolution: 200 },
    made.replace('.pdf', ''),
    ['eng'],
  );
  expect(read!.map((w) => w.text).join(' ')).toContain('The gate was shut');
  expect(Math.min(...read!.map((w) => w.confidence))).toBeGreaterThan(50);
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
  expect(await recognisePage({ path, resolution: 200 }, join(folder, 'no-read'), ['eng'])).toBeUndefined();
});

test('a page that lies on its side or on its head is known by its letters', async () => {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.TimesRoman);
  const page = doc.addPage([420, 300]);
  for (let i = 0; i < 12; i += 1)
    page.drawText('The keeper shut the lower gate in the spring of the year.', {
      x: 40,
      y: 260 - i * 18,
      size: 12,
      font,
    });
  const turns: number[] = [];
  for (const rotate of [0, 90, 180, 270]) {
    page.setRotation(degrees(rotate));
    writeFileSync(join(folder, 'turned.pdf'), await doc.save());
    execFileSync('pdftoppm', ['-png', '-r', '200', '-singlefile', join(folder, 'turned.pdf'), join(folder, 'turned')]);
    turns.push(await quarterTurn(join(folder, 'turned.png')));
  }
  expect(turns).toEqual([0, 270, 180, 90]);
});

test('a page that cannot be drawn stays as it was, and without one nothing is made', async () => {
  const doc = await PDFDocument.create();
  doc.addPage([200, 200]);
  const bytes = await doc.save();
  const on: number[] = [];
  const what = {
    pages: 2,
    languages: ['eng'],
    folder,
    draw: async () => undefined,
    onPage: async (page: number) => void on.push(page),
  };
  const made = await recognisePages({ ...what, leave: async (_, to) => (writeFileSync(to, bytes), true) });
  expect([made!.pages, on, (await PDFDocument.load(readFileSync(made!.path))).getPageCount()]).toEqual([[[], []], [1, 2], 2]); // prettier-ignore
  expect(await recognisePages({ ...what, leave: async () => false })).toBeUndefined();
});

test('English is among the languages that are installed, and what only tells which way is up is none', async () => {
  const languages = await installedLanguages();
  expect(languages).toContain('eng');
  expect(languages).not.toContain('osd');
});

test.each([
  ['upright is never tried in another way', 0, [0]],
  ['on its head is found the way up that reads best', 180, [0, 180]],
  ['on its side is put upright, though it reads as it lies', 90, [0, 270]],
])('a page of italics %s', async (_, lies, tried) => {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.TimesRomanItalic);
  const page = doc.addPage([420, 300]);
  for (let i = 0; i < 10; i += 1)
    page.drawText('The keeper shut the lower gate in the spring of the year.', {
      x: 40,
      y: 260 - i * 18,
      size: 12,
      font,
    });
  const turns: number[] = [];
  const made = await recognisePages({
    pages: 1,
    languages: ['eng'],
    folder,
    async draw(_page, base, turn) {
      turns.push(turn);
      page.setRotation(degrees((lies + turn) % 360));
      writeFileSync(`${base}-drawn.pdf`, await doc.save());
      execFileSync('pdftoppm', ['-png', '-r', '150', '-singlefile', `${base}-drawn.pdf`, base]);
      return { path: `${base}.png`, resolution: 150 };
    },
    leave: async () => false,
    onPage: async () => {},
  });
  expect(made!.pages[0]!.map((w) => w.text).join(' ')).toContain('The keeper shut the lower gate in the spring');
  expect(turns).toEqual(tried);
});
