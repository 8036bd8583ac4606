/** Small PDFs made on the spot, for tests. */
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';

/** @param pages the lines of each page; the first of each is set large */
export async function makePdf(pages: string[][], info: { title?: string } = {}): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.TimesRoman);
  if (info.title) doc.setTitle(info.title);
  for (const lines of pages) {
    const page = doc.addPage([420, 600]);
    lines.forEach((line, i) => page.drawText(line, { x: 40, y: 540 - i * 24, size: i === 0 ? 18 : 10, font }));
  }
  return doc.save();
}
