/** Typesets the documents of the scenario as PDFs with real text, and scans as pictures of such pages. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFDocument, rgb, StandardFonts, type PDFFont, type PDFPage } from '@cantoo/pdf-lib';
import { dateShort, nameSpoken, type SourceRecord } from '@pandecta/core/source';
import { Chance } from './scenario/random.ts';
import { SENTENCES, type Theme } from './scenario/words.ts';

const WIDTH = 482;
const HEIGHT = 680;
const MARGIN = 62;
const LEADING = 15.5;
const HEADINGS: Record<Theme, string[]> = {
  licensing: ['The question', 'What the licences say', 'The cases', 'Obstruction and notice', 'Conclusion'],
  saltmarsh: ['Introduction', 'Methods', 'Results', 'Discussion', 'Conclusion'],
  archive: ['The papers', 'The undertaking', 'Who was present', 'After 1872'],
  operators: ['Background', 'The control room', 'Forecasts and closures', 'A rule for closing', 'Recommendations'],
};

/** The standard fonts know the characters of windows-1252 only. */
const plain = (text: string): string =>
  text.normalize('NFC').replace(
    /[^\u0000-\u00ff‘’“”–—…€]\p{M}*/gu,
    (c) =>
      c
        .normalize('NFD')
        .replace(/\p{M}/gu, '')
        .replace(/[^\u0000-\u00ff]/g, '') || '?',
  );

class Setter {
  private page!: PDFPage;
  private y = 0;
  private count = 0;

  constructor(
    private readonly doc: PDFDocument,
    private readonly body: PDFFont,
    private readonly bold: PDFFont,
    private readonly italic: PDFFont,
    private readonly running: string,
    private readonly firstPage: number,
  ) {}

  get pages(): number {
    return this.count;
  }

  newPage(): void {
    this.page = this.doc.addPage([WIDTH, HEIGHT]);
    this.count += 1;
    this.y = HEIGHT - MARGIN;
    if (this.count > 1)
      this.page.drawText(plain(this.running), {
        x: MARGIN,
        y: HEIGHT - 38,
        size: 8.5,
        font: this.italic,
        color: rgb(0.35, 0.35, 0.35),
      });
    this.page.drawText(String(this.firstPage + this.count - 1), {
      x: WIDTH - MARGIN - 16,
      y: 34,
      size: 8.5,
      font: this.body,
    });
  }

  line(text: string, size: number, font: PDFFont, gap: number): void {
    if (this.y - gap < MARGIN) this.newPage();
    this.y -= gap;
    this.page.drawText(text, { x: MARGIN, y: this.y, size, font, color: rgb(0.12, 0.14, 0.16) });
  }

  block(text: string, size: number, font: PDFFont, leading: number, before = 0): void {
    let first = true;
    for (const line of wrap(plain(text), font, size, WIDTH - 2 * MARGIN)) {
      this.line(line, size, font, leading + (first ? before : 0));
      first = false;
    }
  }

  title(record: SourceRecord): void {
    this.block(record.title ?? '', 17, this.bold, 21, 20);
    const people = (record.author ?? record.editor ?? []).map(nameSpoken).join(', ');
    if (people) this.block(people, 11, this.body, 15, 8);
    const where = [
      record['container-title'] ?? record.archive,
      record.volume && `${record.volume}${record.issue ? `(${record.issue})` : ''}`,
      dateShort(record.issued),
    ]
      .filter(Boolean)
      .join(', ');
    this.block(where, 9, this.italic, 12, 4);
    if (record.DOI) this.block(`https://doi.org/${record.DOI}`, 9, this.body, 12);
  }

  heading(text: string): void {
    this.block(text, 12.5, this.bold, 17, 12);
  }

  paragraph(text: string): void {
    this.block(text, 10.8, this.body, LEADING, 5);
  }
}

function wrap(text: string, font: PDFFont, size: number, width: number): string[] {
  const out: string[] = [];
  let line = '';
  for (const word of text.split(/\s+/)) {
    const longer = line ? `${line} ${word}` : word;
    if (line && font.widthOfTextAtSize(longer, size) > width) {
      out.push(line);
      line = word;
    } else line = longer;
  }
  return line ? [...out, line] : out;
}

/** A work as the journals of the scenario print it in their lists: author and year first. */
export function printed({ author, editor, issued, ...record }: SourceRecord): string {
  const who = (author ?? editor ?? []).map((n) => n.literal ?? `${n.family}, ${n.given?.[0] ?? ''}.`).join(', ');
  const place =
    [record['container-title'], record.volume && `${record.volume}${record.issue ? `(${record.issue})` : ''}`, record.page?.replace('-', '–')] // prettier-ignore
      .filter(Boolean)
      .join(', ');
  return `${who} (${issued?.['date-parts']?.[0]?.[0] ?? 'n.d.'}). ${record.title}. ${place || (record.publisher ?? '')}.${record.DOI ? ` https://doi.org/${record.DOI}` : ''}`;
}

/** @param metadata whether the file says of itself what it is; many do not. */
export async function typeset(
  record: SourceRecord,
  theme: Theme,
  pages: number,
  seed: number,
  metadata: boolean,
  references: string[] = [],
): Promise<Uint8Array> {
  const chance = new Chance(seed);
  const doc = await PDFDocument.create();
  const [body, bold, italic] = await Promise.all([
    doc.embedFont(StandardFonts.TimesRoman),
    doc.embedFont(StandardFonts.TimesRomanBold),
    doc.embedFont(StandardFonts.TimesRomanItalic),
  ]);
  const stamp = new Date(Date.UTC(2026, 2, 2));
  doc.setCreationDate(stamp);
  doc.setModificationDate(stamp);
  doc.setProducer('Pandecta demo');
  if (metadata) {
    doc.setTitle(record.title ?? '');
    doc.setAuthor((record.author ?? []).map(nameSpoken).join('; '));
  }
  const set = new Setter(
    doc,
    body!,
    bold!,
    italic!,
    `${record.author?.[0]?.family ?? ''} · ${record.title ?? ''}`.slice(0, 70),
    Number(/^\d+/.exec(record.page ?? '1')?.[0] ?? 1),
  );
  set.newPage();
  set.title(record);
  if (record.abstract) set.paragraph(record.abstract);
  const headings = HEADINGS[theme];
  // Judgments count their paragraphs.
  let counted = 0;
  const numbered = (): string => (record.type === 'legal_case' ? `[${(counted += 1)}] ` : '');
  for (let section = 0; set.pages < pages; section += 1) {
    set.heading(`${section + 1}. ${headings[section % headings.length]!}`);
    for (let p = 0; p < 4 && set.pages <= pages; p += 1)
      set.paragraph(
        numbered() +
          [
            ...chance.some(SENTENCES[theme], chance.int(3, 5)),
            ...chance.some(SENTENCES.any, chance.int(1, 2)),
            ...chance.some(SENTENCES[theme], 1),
          ].join(' '),
      );
  }
  while (doc.getPageCount() > pages) doc.removePage(doc.getPageCount() - 1);
  if (references.length) {
    set.newPage();
    set.block('References', 12.5, bold!, 17);
    for (const reference of references) set.block(reference, 9.6, body!, 12.5, 5);
  }
  return doc.save();
}

/** A document as a scanner makes it: each page one picture, no text. */
export async function scan(pdf: Uint8Array): Promise<Uint8Array> {
  const folder = mkdtempSync(join(tmpdir(), 'pandecta-scan-'));
  try {
    writeFileSync(join(folder, 'in.pdf'), pdf);
    execFileSync('pdftoppm', ['-r', '90', '-gray', '-jpeg', join(folder, 'in.pdf'), join(folder, 'page')]);
    const doc = await PDFDocument.create();
    for (const name of readdirSync(folder)
      .filter((n) => n.endsWith('.jpg'))
      .sort()) {
      const picture = await doc.embedJpg(readFileSync(join(folder, name)));
      doc.addPage([WIDTH, HEIGHT]).drawImage(picture, { x: 0, y: 0, width: WIDTH, height: HEIGHT });
    }
    doc.setCreationDate(new Date(Date.UTC(2026, 2, 2)));
    return await doc.save();
  } finally {
    rmSync(folder, { recursive: true });
  }
}
