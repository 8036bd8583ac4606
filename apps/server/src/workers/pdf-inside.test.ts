/** Annotations that other programs made (see annotated/README.md), and files that are broken or say nonsense. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PDFDocument, PDFName, PDFString } from '@cantoo/pdf-lib';
import fc from 'fast-check';
import { afterAll, expect, test } from 'vitest';
import type { Annotation } from '@pandecta/core/annotations';
import { annotated, type WrittenMark } from './annotations.ts';
import { pdfInside } from './pdf-inside.ts';

const folder = mkdtempSync(join(tmpdir(), 'pandecta-inside-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const made = (name: string): string => fileURLToPath(new URL(`annotated/${name}.pdf`, import.meta.url));
const briefly = ({ kind, quote, note, author }: Annotation) => [kind, quote.exact, note, author];

test('those of TeX, made with pdfcomment, are read: of markup, what it stands on is told by its quadrilaterals', async () => {
  const { annotations } = await pdfInside(made('tex-pdfcomment-2.4'));
  expect(annotations.map(briefly)).toEqual([
    ['Highlight', 'shut the lower gate', 'At what hour?', 'LeilaSamphire'],
    ['StrikeOut', 'the boatmen', 'Ferrymen.', 'LeilaSamphire'],
    ['Text', '', 'See the map of 1740.', 'LeilaSamphire'],
    ['Underline', 'a line', '', 'LeilaSamphire'],
    ['Squiggly', 'another.', 'Is it so?', 'LeilaSamphire'],
  ]);
  expect(annotations[0]!.colour).toEqual([1, 1, 0]);
});

test('those of poppler are read', async () => {
  const { annotations } = await pdfInside(made('poppler-22.12'));
  expect(annotations.map(briefly)).toEqual([
    ['Highlight', 'shut the lower gate', 'On shut the lower gate', 'Ada Marsh'],
    ['StrikeOut', 'the boatmen', 'On the boatmen', 'Ada Marsh'],
    ['Text', '', 'A note of poppler', ''],
  ]);
});

test('comments of LibreOffice are read; it writes the day beside the author', async () => {
  const { annotations } = await pdfInside(made('libreoffice-7.4'));
  expect(annotations.map(briefly)).toEqual([['Text', '', 'At what hour?', 'Kenzo Weir, 03/04/26, ']]);
});

async function blank(rotate = 0): Promise<{ doc: PDFDocument; path: string }> {
  const doc = await PDFDocument.create();
  const page = doc.addPage([400, 500]);
  page.node.set(PDFName.of('Rotate'), doc.context.obj(rotate));
  return { doc, path: join(folder, 'made.pdf') };
}

test('what is no annotation of the standard is passed over, and nothing is thrown', async () => {
  const { doc, path } = await blank();
  const page = doc.getPage(0);
  const odd = [
    { Type: 'Annot' },
    { Type: 'Annot', Subtype: 'Highlight' },
    { Type: 'Annot', Subtype: 'Highlight', Rect: [1, 2] },
    { Type: 'Annot', Subtype: 'Highlight', Rect: [1, 2, 3, 4], QuadPoints: [1, 2, 3] },
    { Type: 'Annot', Subtype: 'Text', Rect: ['a', 'b', 'c', 'd'] },
    { Type: 'Annot', Subtype: 'Widget', Rect: [1, 2, 3, 4] },
  ];
  for (const one of odd) page.node.addAnnot(doc.context.register(doc.context.obj(one)));
  const dated = doc.context.obj({ Type: 'Annot', Subtype: 'Text', Rect: [9, 9, 9, 9] });
  dated.set(PDFName.of('CreationDate'), PDFString.of('yesterday'));
  page.node.addAnnot(doc.context.register(dated));
  page.node.Annots()!.push(doc.context.obj(17));
  writeFileSync(path, await doc.save());
  const { annotations } = await pdfInside(path);
  // One has a rectangle where its quadrilaterals are none.
  expect(annotations.map((a) => [a.kind, a.at])).toEqual([
    ['Highlight', ''],
    ['Text', ''],
  ]);
});

const mark: fc.Arbitrary<WrittenMark> = fc.record({
  name: fc.uuid(),
  page: fc.constant(1),
  shape: fc.constantFrom('highlight', 'underline', 'strike', 'region', 'point'),
  rects: fc
    .tuple(fc.integer({ min: 0, max: 300 }), fc.integer({ min: 0, max: 300 }), fc.integer({ min: 5, max: 90 }))
    .map(([x0, y0, side]) => [{ x0, y0, x1: x0 + side, y1: y0 + side }]),
  note: fc.string({ unit: 'grapheme' }).map((s) => s.replace(/[\r\0]/g, '')),
  author: fc.string({ unit: 'grapheme', maxLength: 60 }).map((s) => s.replace(/[\r\0]/g, '')),
  subject: fc.constantFrom('Claim', 'Zweifel', ''),
  colour: fc.constantFrom<[number, number, number]>([1, 1, 0], [0.5, 0.25, 0]),
  at: fc.constant('2026-03-14T09:30:00.000Z'),
});

test('whatever marks are written, on a page turned however, they are read back alike, and written again they are no more', () =>
  fc.assert(
    fc.asyncProperty(
      fc.uniqueArray(mark, { selector: (m) => m.name, maxLength: 6 }),
      fc.constantFrom(0, 90, 180, 270),
      async (marks, rotate) => {
        const { doc, path } = await blank(rotate);
        writeFileSync(path, await doc.save());
        writeFileSync(path, await annotated({ path, marks, known: [] }));
        writeFileSync(path, await annotated({ path, marks, known: [] }));
        const { annotations } = await pdfInside(path);
        const told = (x: { name: string; note: string; author: string; subject: string; at: string }) => [x.name, x.note, x.author, x.subject, x.at]; // prettier-ignore
        expect(annotations.map(told)).toEqual(marks.map(told));
        for (const [i, m] of marks.entries())
          for (const side of m.shape === 'point' ? (['x0', 'y0'] as const) : (['x0', 'y0', 'x1', 'y1'] as const))
            expect(annotations[i]!.rects[0]![side]).toBeCloseTo(m.rects[0]![side], 3);
      },
    ),
    { numRuns: 40 },
  ));
