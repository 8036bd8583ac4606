import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFDocument, PDFHexString, PDFName, StandardFonts, degrees } from '@cantoo/pdf-lib';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { Changed, DocumentReply, Mark } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
const folder = mkdtempSync(join(tmpdir(), 'pandecta-annotations-'));
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));
beforeEach(async () => {
  me = await server.person('contributor');
});

interface Remark {
  Subtype: string;
  Rect: number[];
  QuadPoints?: number[];
  C?: number[];
  NM?: string;
  T?: string;
  Contents?: string;
}

const WORDS = 'Who closes the gate is said in none of the ordinances';

/** One page with a line of words at (72, 700), as large as its letters, and remarks on it. */
async function pdfWith(remarks: Remark[], { rotate = 0, words = WORDS } = {}): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.Helvetica);
  const page = document.addPage([612, 792]);
  page.drawText(words, { x: 72, y: 700, size: 12, font });
  page.setRotation(degrees(rotate));
  for (const { NM, T, Contents, ...rest } of remarks) {
    const dict = document.context.obj({ Type: 'Annot', ...rest });
    const texts = { NM, T, Contents };
    for (const [key, value] of Object.entries(texts))
      if (value !== undefined) dict.set(PDFName.of(key), PDFHexString.fromText(value));
    page.node.addAnnot(document.context.register(dict));
  }
  return document.save();
}

/** The place of the first words of the line, and of a word further on. */
const FIRST = [70, 696, 137, 712];
const quads = ([x0, y0, x1, y1]: number[]): number[] => [x0!, y1!, x1!, y1!, x0!, y0!, x1!, y0!];
const highlight = (more: Partial<Remark> = {}): Remark => ({
  Subtype: 'Highlight',
  Rect: FIRST,
  QuadPoints: quads(FIRST),
  C: [0.9, 0.2, 0.2],
  NM: 'a-1',
  T: 'Ada Marsh',
  Contents: 'Who indeed?',
  ...more,
});

async function bring(pdf: Uint8Array, name = 'paper.pdf'): Promise<{ at: string; source: string }> {
  await me.import({ [name]: pdf });
  const [row] = (await me.ask('')).rows;
  return { at: `/sources/${row!.id}/files/${row!.fileId}`, source: row!.id };
}
const document = (at: string, person = me): Promise<DocumentReply> => person.at('GET', at);
const briefly = ({ quote, shape, gloss, by, page }: Mark) => [page, shape, quote.exact, gloss, by];
async function replace(source: string, instead: string, pdf: Uint8Array): Promise<string> {
  const form = new FormData();
  form.append('instead', instead);
  form.append('file', new Blob([Buffer.from(pdf)]), 'newer.pdf');
  const { jobId } = await me.at<Changed>('POST', `/sources/${source}/files`, form);
  await me.jobEnds(jobId!);
  const [row] = (await me.ask('')).rows;
  return `/sources/${source}/files/${row!.fileId}`;
}

test('annotations of a PDF come in as marks with author, note, shape and the words they stand on', async () => {
  const { at } = await bring(
    await pdfWith([
      highlight(),
      { Subtype: 'Text', Rect: [300, 600, 320, 620], NM: 'a-2', T: 'Ada Marsh', Contents: 'See the map.' },
      { Subtype: 'Square', Rect: [72, 100, 300, 300], C: [0, 0.6, 0.5], NM: 'a-3' },
      { Subtype: 'Link', Rect: [72, 50, 100, 60] },
    ]),
  );
  const { marks, senses, annotations } = await document(at);
  expect(marks.map(briefly)).toEqual([
    [1, 'highlight', 'Who closes', 'Who indeed?', 'Ada Marsh'],
    [1, 'point', '', 'See the map.', 'Ada Marsh'],
    [1, 'region', '', '', me.info.name],
  ]);
  expect(marks.map((m) => senses.find((s) => s.id === m.sense)!.name)).toEqual(['Doubt', 'Claim', 'Evidence']);
  expect(marks[2]!.rects).toEqual([{ x0: 72, y0: 492, x1: 300, y1: 692 }]);
  expect(annotations).toBe(0);
});

test('they come in once: what was removed stays removed, and is read in again by nobody', async () => {
  const { at } = await bring(await pdfWith([highlight()]));
  const [mark] = (await document(at)).marks;
  await me.at('DELETE', `/marks/${mark!.id}`);
  expect((await me.at<Changed>('POST', `${at}/annotations`)).changeId).toBeNull();
  expect((await document(at)).marks).toEqual([]);
  await me.at('POST', '/undo');
  expect((await document(at)).marks).toHaveLength(1);
});

test('the same file that comes back changed brings what is new, and the note that was written on', async () => {
  const { at, source } = await bring(await pdfWith([highlight()]));
  const [mark] = (await document(at)).marks;
  const file = at.split('/').at(-1)!;
  const second = await replace(
    source,
    file,
    await pdfWith([
      highlight({ Contents: 'Who indeed? The tenant.' }),
      { Subtype: 'Text', Rect: [300, 600, 320, 620], NM: 'a-9', Contents: 'New.' },
    ]),
  );
  const { marks } = await document(second);
  expect(marks.map(briefly)).toEqual([
    [1, 'highlight', 'Who closes', 'Who indeed? The tenant.', 'Ada Marsh'],
    [1, 'point', '', 'New.', me.info.name],
  ]);
  expect(marks[0]!.id).toBe(mark!.id);
  // All of it was one change.
  await me.at('POST', '/undo');
  expect((await document(at)).marks.map(briefly)).toEqual([[1, 'highlight', 'Who closes', 'Who indeed?', 'Ada Marsh']]);
});

test('marks written into the PDF are read back alike, and poppler finds nothing wrong with the file', async () => {
  const { at } = await bring(await pdfWith([highlight()], { rotate: 90 }));
  const before = await document(at);
  const sense = before.senses[1]!.id;
  const make = (body: object): Promise<Changed> => me.at('POST', `${at}/marks`, body);
  const nothing = { exact: '', prefix: '', suffix: '' };
  const ordinances = { exact: 'none of the', prefix: 'is said in ', suffix: ' ordinances' };
  await make({ page: 1, sense, shape: 'strike', quote: ordinances, rects: [], gloss: 'Not so: 1974 – see “Gates”.' });
  await make({ page: 1, sense, shape: 'region', quote: nothing, rects: [{ x0: 40, y0: 50, x1: 90, y1: 80 }] });
  await make({ page: 1, sense, shape: 'point', quote: nothing, rects: [{ x0: 200, y0: 60, x1: 200, y1: 60 }] });
  await make({
    page: 1,
    sense,
    shape: 'underline',
    quote: nothing,
    rects: [{ x0: 5, y0: 5, x1: 50, y1: 20 }],
    personal: true,
  });
  const written = Buffer.from(await me.bytes(`${at}/annotated`));
  const path = join(folder, 'written.pdf');
  writeFileSync(path, written);
  execFileSync('qpdf', ['--check', path]);
  expect(execFileSync('pdftotext', [path, '-'], { encoding: 'utf8' })).toContain('Who closes the gate');
  const other = await server.person('contributor');
  await other.import({ 'written.pdf': written });
  const [row] = (await other.ask('')).rows;
  const again = await document(`/sources/${row!.id}/files/${row!.fileId}`, other);
  const shown = (await document(at)).marks.filter((m) => !m.personal);
  const place = ({ quote, shape, gloss, rects }: Mark) => ({
    shape,
    gloss,
    words: quote.exact,
    // A note is a place, which others show as an icon.
    x0: Math.round(rects[0]!.x0),
    y0: Math.round(rects[0]!.y0),
  });
  const sorted = (of: Mark[]) => of.map(place).sort((a, b) => a.shape.localeCompare(b.shape));
  expect(sorted(again.marks)).toEqual(sorted(shown));
  expect(again.marks.map((m) => again.senses.find((s) => s.id === m.sense)!.name).sort()).toEqual(
    shown.map((m) => before.senses.find((s) => s.id === m.sense)!.name).sort(),
  );
  expect(again.marks.some((m) => m.shape === 'underline')).toBe(false);
});

test('a mark that was removed is not written, though the file came with it', async () => {
  const { at } = await bring(await pdfWith([highlight(), { Subtype: 'Link', Rect: [72, 50, 100, 60] }]));
  const [mark] = (await document(at)).marks;
  await me.at('DELETE', `/marks/${mark!.id}`);
  const written = await PDFDocument.load(await me.bytes(`${at}/annotated`));
  expect(written.getPage(0).node.Annots()!.size()).toBe(1);
});
