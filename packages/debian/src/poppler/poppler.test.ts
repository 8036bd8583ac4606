import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFDocument, PDFName, StandardFonts } from '@cantoo/pdf-lib';
import { afterAll, describe, expect, test } from 'vitest';
import { pdfInfo, pdfPages } from './index.ts';

const folder = mkdtempSync(join(tmpdir(), 'pandecta-poppler-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

interface Info {
  title?: string;
  author?: string;
  subject?: string;
  keywords?: string[];
}

/** A PDF of one page with the given Info dictionary and XMP packet. */
async function pdf(name: string, info: Info, xmp?: string): Promise<string> {
  const doc = await PDFDocument.create();
  doc.addPage([300, 300]).drawText('One page', { x: 20, y: 200, font: await doc.embedFont(StandardFonts.Helvetica) });
  if (info.title) doc.setTitle(info.title);
  if (info.author) doc.setAuthor(info.author);
  if (info.subject) doc.setSubject(info.subject);
  if (info.keywords) doc.setKeywords(info.keywords);
  if (xmp) {
    const packet = doc.context.stream(xmp, { Type: 'Metadata', Subtype: 'XML', Length: Buffer.byteLength(xmp) });
    doc.catalog.set(PDFName.of('Metadata'), doc.context.register(packet));
  }
  const path = join(folder, name);
  writeFileSync(path, await doc.save());
  return path;
}

/** A packet in the form of ISO 16684-1, section 7, with Dublin Core and PRISM properties. */
const XMP = `<?xpacket begin="" id="W5M0MpCehiHzreSzNTczkc9d"?>
<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
<rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:prism="http://prismstandard.org/namespaces/basic/2.0/">
<dc:title><rdf:Alt><rdf:li xml:lang="x-default">Gates &amp; Tides</rdf:li></rdf:Alt></dc:title>
<dc:creator><rdf:Seq><rdf:li>In&#xE9;s Vance</rdf:li><rdf:li>Marit Okonjo</rdf:li></rdf:Seq></dc:creator>
<dc:subject><rdf:Bag><rdf:li>Sluices</rdf:li><rdf:li>Law of harbours</rdf:li></rdf:Bag></dc:subject>
<prism:doi>10.5555/Gates.2011</prism:doi>
<prism:publicationDate>2011-04-02</prism:publicationDate>
</rdf:Description></rdf:RDF></x:xmpmeta><?xpacket end="w"?>`;

describe('what a PDF says of itself', () => {
  test('in its Info dictionary: title, people, keywords, a DOI in the subject', async () => {
    const path = await pdf('info.pdf', {
      title: 'Tides and gates',
      author: 'Ada Marsh and Kenzo Weir; Leila Samphire',
      subject: 'Harbour History 31, doi:10.5555/hh.31.2',
      keywords: ['sluices', 'silt'],
    });
    const { state, pages, embedded } = await pdfInfo(path);
    expect({ state, pages }).toEqual({ state: 'sound', pages: 1 });
    expect(embedded).toMatchObject({
      title: 'Tides and gates',
      authors: ['Ada Marsh and Kenzo Weir; Leila Samphire'],
      doi: '10.5555/hh.31.2',
    });
  });

  test('in XMP, which goes before the Info dictionary', async () => {
    const path = await pdf('xmp.pdf', { title: 'draft7.doc', author: 'Scanner User' }, XMP);
    expect((await pdfInfo(path)).embedded).toEqual({
      title: 'Gates & Tides',
      authors: ['Inés Vance', 'Marit Okonjo'],
      keywords: ['Sluices', 'Law of harbours'],
      doi: '10.5555/gates.2011',
    });
  });

  // pdfinfo prints "Author:" and nothing behind it where the field is empty; the next line is another field.
  test('a field that is empty is not the one after it', async () => {
    const path = await pdf('empty.pdf', { title: '', subject: '', author: '', keywords: [] });
    expect((await pdfInfo(path)).embedded).toEqual({});
  });
});

test('what is no PDF is damaged, whatever it is called', async () => {
  const path = join(folder, 'no.pdf');
  writeFileSync(path, '%PDF-1.7\nnothing more');
  expect(await pdfInfo(path)).toEqual({ state: 'damaged', pages: 0, embedded: {} });
});

test('reading can stop after the first page without waiting for the others', async () => {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (let i = 1; i <= 300; i += 1) doc.addPage([300, 300]).drawText(`Leaf ${i}`, { x: 20, y: 200, font });
  const path = join(folder, 'long.pdf');
  writeFileSync(path, await doc.save());
  for await (const page of pdfPages(path)) {
    expect([page.number, page.text]).toEqual([1, 'Leaf 1']);
    break;
  }
});
