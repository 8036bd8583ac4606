/** A bibliography as a file: what core writes as text, and DOCX, for which there is a package. */
import { runsOf, writePrinted, type Printed, type PrintFormat, type Run } from '@pandecta/core/printing';

/** Twentieths of a point: half an inch, and six points between entries. */
const INDENT = 720;
const AFTER = 120;

export async function printed({ format, ...what }: Printed & { format: PrintFormat }): Promise<Uint8Array> {
  return format === 'docx' ? docxOf(what) : new TextEncoder().encode(writePrinted(what, format));
}

async function docxOf({ entries, hangingIndent }: Printed): Promise<Uint8Array> {
  const { Document, Packer, Paragraph, TextRun } = await import('docx');
  const run = ({ text, italic, bold, underline, smallCaps, raised, lowered }: Run): InstanceType<typeof TextRun> =>
    new TextRun({
      text,
      ...(italic && { italics: true }),
      ...(bold && { bold: true }),
      ...(underline && { underline: {} }),
      ...(smallCaps && { smallCaps: true }),
      ...(raised && { superScript: true }),
      ...(lowered && { subScript: true }),
    });
  const children = entries.map(
    (e) =>
      new Paragraph({
        children: runsOf(e.html).map(run),
        spacing: { after: AFTER },
        ...(hangingIndent && { indent: { left: INDENT, hanging: INDENT } }),
      }),
  );
  return new Uint8Array(await Packer.toArrayBuffer(new Document({ sections: [{ children }] })));
}
