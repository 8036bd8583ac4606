/** Photographs of pages, and what a browser sends beside a page. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFDocument } from '@cantoo/pdf-lib';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { Changed, Clipped, IntakeDetail, IntakePage, JobList, SourceDetail } from '@pandecta/contract';
import { makePdf } from '../testing/pdf.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let pdf: Uint8Array;
let picture: Buffer;
beforeAll(async () => {
  server = await startTestServer();
  pdf = await makePdf([
    [
      'Regulations of the quernstone wharf',
      'Ines Vance',
      'The wharf keeper shall light the lamp at dusk each evening.',
    ],
  ]);
  const folder = mkdtempSync(join(tmpdir(), 'pandecta-pictures-'));
  writeFileSync(join(folder, 'a.pdf'), pdf);
  execFileSync('pdftoppm', ['-png', '-r', '150', '-singlefile', join(folder, 'a.pdf'), join(folder, 'a')]);
  picture = readFileSync(join(folder, 'a.png'));
  rmSync(folder, { recursive: true });
});
beforeEach(async () => void (me = await server.person('contributor')));
afterAll(() => server.close());

async function waiting(): Promise<IntakeDetail> {
  const { rows } = await me.at<IntakePage>('GET', '/intake');
  expect(rows).toHaveLength(1);
  return me.at<IntakeDetail>('GET', `/intake/${rows[0]!.id}`);
}

test('a picture of a page becomes a source whose words are found, with the picture beside', async () => {
  await me.import({ 'scan_01421.png': picture }, undefined, 'intake');
  const { source } = await waiting();
  expect(source.record.title).toBe('Regulations of the quernstone wharf');
  expect(source.files.toSorted((a, b) => (a.name < b.name ? -1 : 1))).toMatchObject([
    { name: 'scan_01421.pdf', mediaType: 'application/pdf', state: 'text', pages: 1 },
    { name: 'scan_01421.png', mediaType: 'image/png', state: 'other', pages: 0 },
  ]);
  await me.at('POST', '/taking-in', { ids: [source.id] });
  await server.settle();
  expect(await me.titles('"light the lamp"')).toEqual(['Regulations of the quernstone wharf']);
});

/** A PDF as a scanner makes it: each page one picture. */
async function scanned(pages: number, title = ''): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  if (title) doc.setTitle(title);
  const image = await doc.embedPng(picture);
  for (let i = 0; i < pages; i += 1) {
    const page = doc.addPage([image.width / 2, image.height / 2]);
    page.drawImage(image, { x: 0, y: 0, width: image.width / 2, height: image.height / 2 });
  }
  return doc.save();
}

test('a PDF that is a picture gets its text recognised, with the scan beside; it is named after what stands in it', async () => {
  await me.import({ 'scan_01421.pdf': await scanned(2, 'about:blank') }, undefined, 'intake');
  const { source } = await waiting();
  expect(source.record.title).toBe('Regulations of the quernstone wharf');
  expect(source.files.map((f) => [f.state, f.pages]).sort()).toEqual([
    ['image only', 2],
    ['text', 2],
  ]);
  await me.at('POST', '/taking-in', { ids: [source.id] });
  await server.settle();
  expect(await me.titles('"light the lamp"')).toEqual(['Regulations of the quernstone wharf']);
});

test('a scan that goes to a source that is here brings the scan itself along', async () => {
  await me.import({ 'a.json': JSON.stringify([{ id: 'a', type: 'document', title: 'Regulations of the quernstone wharf' }]) }); // prettier-ignore
  await me.import({ 'scan_01421.pdf': await scanned(1) });
  const { rows } = await me.ask('');
  expect(rows).toHaveLength(1);
  const { files } = await me.at<SourceDetail>('GET', `/sources/${rows[0]!.id}`);
  expect(files.map((f) => f.state).sort()).toEqual(['image only', 'text']);
});

test('a scan added to a source that is here gets its text recognised, is found by it and opened with it', async () => {
  await me.at('POST', '/sources', { record: { type: 'document', title: 'Wharf rules' } });
  const { id } = (await me.ask('')).rows[0]!;
  const form = new FormData();
  form.append('file', new Blob([(await scanned(1)) as unknown as string]), 'rules.pdf');
  const { jobId } = await me.at<Changed>('POST', `/sources/${id}/files`, form);
  await me.jobEnds(jobId!);
  const { jobs } = await me.at<JobList>('GET', '/jobs');
  expect(jobs.find((j) => j.id === jobId)!.says).toBe(
    'Attached rules.pdf; its text was recognised, and the scan is kept beside it',
  );
  await server.settle();
  const [row] = (await me.ask('"light the lamp"')).rows;
  const { files } = await me.at<SourceDetail>('GET', `/sources/${id}`);
  expect(files.map((f) => f.state).sort()).toEqual(['image only', 'text']);
  expect([row!.fileId, row!.fileTrouble]).toEqual([files.find((f) => f.state === 'text')!.id, undefined]);
  await me.at('POST', '/undo');
  expect((await me.at<SourceDetail>('GET', `/sources/${id}`)).files).toEqual([]);
});

test('a scan that is put in place of itself is kept beside its text', async () => {
  await me.at('POST', '/sources', { record: { type: 'document', title: 'Wharf rules' } });
  const { id } = (await me.ask('')).rows[0]!;
  const scan = await scanned(1);
  const files = async () => (await me.at<SourceDetail>('GET', `/sources/${id}`)).files;
  const add = async (instead?: string): Promise<void> => {
    const form = new FormData();
    if (instead) form.append('instead', instead);
    form.append('file', new Blob([scan as unknown as string]), 'rules.pdf');
    await me.jobEnds((await me.at<Changed>('POST', `/sources/${id}/files`, form)).jobId!);
  };
  await add();
  const before = (await files()).find((f) => f.state === 'image only')!;
  await add(before.id);
  expect((await files()).filter((f) => f.state === 'image only')).toEqual([before]);
});

test('a picture that is broken is refused with the reason, and the rest of the gathering is kept', async () => {
  const report = await me.import({ 'broken.png': picture.subarray(0, 400), 'whole.pdf': pdf }, undefined, 'intake');
  expect(report.messages.map((m) => `${m.file}: ${m.what}`)).toContain(
    'broken.png: The picture is damaged, or too large for its text to be recognised',
  );
  expect((await waiting()).source.files.map((f) => f.name)).toEqual(['whole.pdf']);
});

const clip = async (more: object): Promise<SourceDetail> => {
  const { importId } = await me.at<Clipped>('POST', '/clips', { address: 'https://site.example/a', ...more });
  const { jobs } = await me.at<JobList>('GET', '/jobs');
  await me.jobEnds(jobs.find((j) => j.importId === importId)!.id);
  return (await waiting()).source;
};
const base64 = (bytes: Uint8Array): string => Buffer.from(bytes).toString('base64');

test('a clipped page brings the PDF the browser had, and how the page looked', async () => {
  const html = '<title>Wharf rules</title><p>The wharf keeper lights the lamp.</p>';
  const { files } = await clip({ html, pdf: base64(pdf), picture: base64(picture) });
  expect(files.map((f) => [f.name, f.state]).sort()).toEqual([
    ['Wharf rules.html', 'text'],
    ['Wharf rules.pdf', 'text'],
    ['Wharf rules.png', 'other'],
  ]);
});

test('a PDF the browser shows is recognised like any other, and remembers its address', async () => {
  const { record, id } = await clip({ address: 'https://site.example/rules%20of%201872.pdf', pdf: base64(pdf) });
  expect(record.title).toBe('Regulations of the quernstone wharf');
  const { origin } = await me.at<IntakeDetail>('GET', `/intake/${id}`);
  expect(origin.address).toBe('https://site.example/rules%20of%201872.pdf');
});

test.each([
  ['pdf', 'what came as the PDF is none'],
  ['picture', 'what came as the picture is none'],
])('a %s that is none is refused', async (what, why) => {
  const { status, body } = await me.call<{ detail: string }>('POST', `/w/${me.workspace}/clips`, {
    address: 'https://site.example/a',
    html: '<p>x</p>',
    [what]: base64(Buffer.from('<html>sign in</html>')),
  });
  expect([status, body.detail]).toEqual([400, expect.stringContaining(why)]);
});
