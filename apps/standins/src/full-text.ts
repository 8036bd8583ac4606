/** A page with the title, the names and the abstract of a work. */
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { nameSpoken, type SourceRecord } from '@pandecta/core/source';

const WIDTH = 420;
const MARGIN = 44;

export async function fullTextOf(record: SourceRecord): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const page = doc.addPage([WIDTH, 595]);
  const [bold, plain] = [
    await doc.embedFont(StandardFonts.TimesRomanBold),
    await doc.embedFont(StandardFonts.TimesRoman),
  ];
  // What the standard fonts of PDF have no sign for is left out.
  const writable = (text: string): string => text.normalize('NFC').replace(/[^\x20-\x7e\xa0-\xff–—‘’“”]/g, '');
  let y = 540;
  for (const [text, font, size] of [
    [record.title ?? '', bold, 16],
    [(record.author ?? []).map(nameSpoken).join(', '), plain, 11],
    [record.DOI ? `https://doi.org/${record.DOI}` : '', plain, 9],
    [record.abstract ?? '', plain, 11],
  ] as const) {
    if (!text) continue;
    page.drawText(writable(text), { x: MARGIN, y, size, font, maxWidth: WIDTH - 2 * MARGIN, lineHeight: size * 1.3 });
    y -= (Math.ceil(font.widthOfTextAtSize(writable(text), size) / (WIDTH - 2 * MARGIN)) + 1) * size * 1.3;
  }
  return doc.save();
}
