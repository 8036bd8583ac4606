import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFDocument } from '@cantoo/pdf-lib';
import fc from 'fast-check';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import type { PlacesReply, SourceDetail } from '@pandecta/contract';
import { makePdf } from '../testing/pdf.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => void (server = await startTestServer({ alone: true })));
beforeEach(async () => void (me = await server.person('contributor')));
afterAll(() => server.close());

const RIS =
  'TY  - JOUR\nTI  - Who Closes the Gate and When\nAU  - Okonjo, Marit\nPY  - 2014\nDO  - 10.5555/gate.2014\nKW  - Licences\nER  - \nTY  - BOOK\nTI  - Silt and Salt in Small Estuaries\nAU  - Vance, Ines\nPY  - 2009\nER  - \n';

describe('reference files', () => {
  test('come in with what they hold, whatever they are called', async () => {
    const report = await me.import({
      'export.txt': RIS,
      'refs.ris': '@book{a, title = {A book in BibTeX}}',
      x: '[{"type":"webpage","title":"A page in CSL-JSON"}]',
    });
    expect(report).toMatchObject({ added: 4, known: 0, undoable: true });
    expect(report.messages.map((m) => m.rule)).toEqual(['misnamed']);
    expect(await me.titles('')).toEqual([
      'A book in BibTeX',
      'A page in CSL-JSON',
      'Silt and Salt in Small Estuaries',
      'Who Closes the Gate and When',
    ]);
  });

  test('dropped twice add nothing twice, with and without identifiers', async () => {
    await me.import({ 'a.ris': RIS });
    const again = await me.import({ 'b.ris': RIS });
    expect(again).toMatchObject({ added: 0, known: 2, changeId: null });
    expect(again.messages.map((m) => m.what).join()).toContain('same DOI');
    expect((await me.ask('')).total).toBe(2);
  });

  test('with broken entries give the sound ones, and say where the others broke', async () => {
    const report = await me.import({
      'half.bib': '@book{a, title = {Sound one}}\n@book{b title {no}\n@book{c, title = {Sound two}}',
    });
    expect(report.added).toBe(2);
    expect(report.messages[0]).toMatchObject({ file: 'half.bib', severity: 'error', line: 2, rule: 'broken-entry' });
  });

  test('of no known format, or empty, are left out with a reason', async () => {
    const report = await me.import({ 'notes.txt': 'Dear diary', 'empty.ris': '' });
    expect(report.files.map((f) => f.trouble)).toEqual([
      'This kind of file cannot be read: it is no reference file, table, document, page, picture or PDF',
      'The file is empty',
    ]);
  });

  test('undone, take their sources away again; done again, bring them back', async () => {
    const report = await me.import({ 'a.ris': RIS });
    await me.at('POST', `/changes/${report.changeId}/undo`);
    expect((await me.ask('')).total).toBe(0);
    await me.at('POST', '/redo');
    expect((await me.ask('')).total).toBe(2);
  });

  test('go where it was said before; those already here stay where they are, unless they are to come along', async () => {
    await me.import({ 'a.ris': RIS });
    const { id } = await me.at<{ id: string }>('POST', '/collections', { name: 'Chapter 2' });
    const again = { 'again.ris': `${RIS}TY  - BOOK\nTI  - A third one, new\nER  - \n` };
    const report = await me.import(again, id);
    expect(report.fresh.map((f) => f.title)).toEqual(['A third one, new']);
    expect(report.messages.every((m) => m.done.endsWith('stays where it is'))).toBe(true);
    const counts = async (): Promise<unknown> => {
      const places = await me.at<PlacesReply>('GET', '/places');
      return [places.collections.map((c) => c.count), places.loose];
    };
    expect(await counts()).toEqual([[1], 2]);
    const form = new FormData();
    form.append('destination', JSON.stringify({ collections: [id], tags: [], reading: null, known: true }));
    form.append('file', new Blob([again['again.ris']]), 'again.ris');
    const { jobId } = await me.at<{ jobId: string }>('POST', '/imports', form);
    await me.jobEnds(jobId);
    expect(await counts()).toEqual([[3], 0]);
  });

  test('with short titles are known again by the whole record, and another work of the same title is not', async () => {
    const chapter = (author: string, page: string): string =>
      `TY  - CHAP\nTI  - The night watch\nAU  - ${author}\nPY  - 1963\nSP  - ${page}\nT2  - Harbour lives\nER  - \n`;
    await me.import({ 'a.ris': chapter('Vance, Ines', '81') });
    expect(await me.import({ 'b.ris': `${chapter('Vance, Ines', '81')}\n` })).toMatchObject({ added: 0, known: 1 });
    expect(await me.import({ 'c.ris': chapter('Ito, Kenzo', '7') })).toMatchObject({ added: 1, known: 0 });
  });

  test('of any bytes never break the server', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.uint8Array({ minLength: 1, maxLength: 300 }),
        fc.constantFrom('', 'TY  - JOUR\n', '@book{', '[{"title":', '%PDF-1.4\n'),
        async (bytes, lead) => {
          const content = new Uint8Array([...Buffer.from(lead), ...bytes]);
          const report = await me.import({ 'any.bin': content });
          expect(report.job.state).toBe('done');
        },
      ),
      {
        numRuns: 12,
        examples: [
          [new Uint8Array([0]), '[{"title":'],
          [new Uint8Array(Buffer.from('"a\\u0000b","keyword":"\\u0000"}]')), '[{"title":'],
        ],
      },
    );
  });
});

describe('PDFs', () => {
  test('become a source: title by its type, authors below it, text found by page', async () => {
    const report = await me.import({
      'scan_01421.pdf': await makePdf([
        ['The Night Watch at the Sluice', 'Anton Brackwater', 'Operators closed late.'],
        ['Second page', 'The tidal barrier was raised at dusk.'],
      ]),
    });
    expect(report).toMatchObject({
      added: 1,
      files: [{ format: 'PDF', outcome: 'New source “The Night Watch at the Sluice” (2 pages)' }],
    });
    await server.settle();
    const { rows } = await me.ask('"tidal barrier"');
    expect(rows[0]!.hits[0]).toMatchObject({ where: 'p. 2', page: 2 });
    const detail = await me.at<SourceDetail>('GET', `/sources/${rows[0]!.id}`);
    expect(detail.record.author).toEqual([{ given: 'Anton', family: 'Brackwater' }]);
    expect(detail.provenance.title).toMatchObject({ from: 'page layout' });
  });

  test('that belong to a source already here are attached to it', async () => {
    await me.import({ 'a.ris': RIS });
    const report = await me.import({
      'by-doi.pdf': await makePdf([['Something else on the cover', 'https://doi.org/10.5555/gate.2014']]),
      'by-title.pdf': await makePdf([['Silt and Salt in Small Estuaries', 'Ines Vance']]),
    });
    expect(report).toMatchObject({ added: 0, attached: 2 });
    expect(report.files.map((f) => f.outcome.replace(/.*: /, ''))).toEqual(['same DOI', 'same title']);
    await me.at('POST', '/undo');
    expect((await me.ask('file:yes')).total).toBe(0);
  });

  test('that came in before are known by their content, whatever their name', async () => {
    const content = await makePdf([['A document of its own kind', 'Leila Samphire']]);
    await me.import({ 'one.pdf': content });
    expect(await me.import({ 'two.pdf': content })).toMatchObject({ added: 0, known: 1 });
  });

  test('damaged, locked, without text or wrongly named end each in a clear outcome', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'pandecta-pdf-'));
    const plain = join(folder, 'plain.pdf');
    writeFileSync(plain, await makePdf([['A secret paper on closures']]));
    execFileSync('qpdf', ['--encrypt', 'user', 'owner', '256', '--', plain, join(folder, 'locked.pdf')]);
    const blank = await PDFDocument.create();
    blank.addPage();
    const report = await me.import({
      'damaged.pdf': '%PDF-1.4\nnothing more',
      'locked.pdf': readFileSync(join(folder, 'locked.pdf')),
      'scan.pdf': await blank.save(),
      'paper.ris': await makePdf([['A paper that hides as references']]),
    });
    expect(report.added).toBe(3);
    expect(
      Object.fromEntries(report.messages.filter((m) => m.rule !== 'no-title').map((m) => [m.file, m.rule])),
    ).toEqual({
      'damaged.pdf': 'damaged',
      'locked.pdf': 'encrypted',
      'scan.pdf': 'image-only',
      'paper.ris': 'misnamed',
    });
    expect(Object.fromEntries(report.files.map((f) => [f.name, f.outcome]))).toMatchObject({
      'locked.pdf': expect.stringContaining('(locked with a password, not read)') as string,
      'scan.pdf': expect.stringContaining('(1 page, image only)') as string,
    });
  });

  test('cut off at their end are read as far as they go, and said to be', async () => {
    const whole = await makePdf([['The Night Watch at the Sluice', 'Anton Brackwater'], ['Second page of the watch']]);
    const report = await me.import({ 'cut.pdf': whole.subarray(0, Math.floor(whole.length * 0.97)) });
    expect(report).toMatchObject({
      added: 1,
      files: [{ outcome: 'New source “The Night Watch at the Sluice” (2 pages)' }],
      messages: [{ rule: 'rebuilt', done: 'read as far as it goes: 2 pages' }],
    });
    await server.settle();
    expect((await me.ask('"second page"')).total).toBe(1);
  });

  test('of a thousand pages are read to the end', async () => {
    const long = await makePdf(
      Array.from({ length: 1000 }, (_, i) => [`Page ${i + 1}`, i === 941 ? 'the needle of the estuary' : 'hay']),
    );
    await me.import({ 'long.pdf': long });
    await server.settle();
    expect((await me.ask('needle')).rows[0]!.hits[0]?.page).toBe(942);
  });

  test('give up the same words as pdftotext', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'pandecta-pdf-'));
    const content = await makePdf([['Title of it', 'None of those granted before 1974 says who must close the gate.']]);
    writeFileSync(join(folder, 'a.pdf'), content);
    const theirs = execFileSync('pdftotext', [join(folder, 'a.pdf'), '-'], { encoding: 'utf8' })
      .split(/\s+/)
      .filter(Boolean);
    await me.import({ 'a.pdf': content });
    const { rows } = await server.app.services.database.pool.query<{ text: string }>(
      'select text from pages where workspace_id = $1',
      [me.workspace],
    );
    expect(rows[0]!.text.split(/\s+/)).toEqual(theirs);
  });
});
