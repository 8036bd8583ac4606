/** A bibliography, or marks, as a file: what core writes as text, and DOCX, for which there is a package. */
import { bySource, shortCitation, whatOf, wordsOf, type ExportedMark } from '@pandecta/core/mark-export';
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

/** Each source as a heading, each mark as a quotation with its place, sense and gloss. */
export async function docxOfMarks(marks: readonly ExportedMark[]): Promise<Uint8Array> {
  const { Document, HeadingLevel, Packer, Paragraph, TextRun } = await import('docx');
  const lines = (text: string) =>
    text.split('\n').map((line, i) => new TextRun({ text: line, ...(i && { break: 1 }) }));
  const children = bySource(marks).flatMap(({ citation, marks: of }) => [
    new Paragraph({ heading: HeadingLevel.HEADING_2, children: [new TextRun(citation)] }),
    ...of.flatMap((mark) => {
      const words = wordsOf(mark);
      const place = `${shortCitation(mark)} · ${whatOf(mark)} · ${mark.by}`;
      return [
        ...(words ? [new Paragraph({ style: 'IntenseQuote', children: lines(words), indent: { left: INDENT } })] : []),
        new Paragraph({ children: [new TextRun({ text: place, italics: true })], spacing: { after: AFTER } }),
        ...(mark.gloss ? [new Paragraph({ children: lines(mark.gloss), spacing: { after: AFTER } })] : []),
      ];
    }),
  ]);
  return new Uint8Array(await Packer.toArrayBuffer(new Document({ sections: [{ children }] })));
}
