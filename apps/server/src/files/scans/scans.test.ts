/** Scans as the server reads them: put upright, recognised, recognised anew. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import sharp from 'sharp';
import { PDFDocument } from '@cantoo/pdf-lib';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type {
  Changed,
  DocumentReply,
  LinesOfPage,
  PlainReply,
  Problem,
  RecognitionLanguages,
  SourceDetail,
} from '@pandecta/contract';
import { upright } from '../../workers/upright.ts';
import { makePdf } from '../../testing/pdf.ts';
import { startTestServer, type Person, type TestServer } from '../../testing/server.ts';

const folder = mkdtempSync(join(tmpdir(), 'pandecta-scans-'));
let server: TestServer;
let me: Person;
const LINES = ['Hours of the lower gate', 'The keeper shut the gate at dusk and went home.', 'No notice was given to the boatmen that year.', 'The ferry lay within until the morning tide.']; // prettier-ignore

/** The lines on a page as a scanner pictures it, turned clockwise by so many degrees. */
async function pictured(turn: number): Promise<string> {
  const base = join(folder, `page${turn}`);
  writeFileSync(`${base}.pdf`, await makePdf([LINES]));
  execFileSync('pdftoppm', ['-png', '-r', '150', '-singlefile', `${base}.pdf`, base]);
  const turned = await sharp(readFileSync(`${base}.png`)).rotate(turn, { background: 'white' }).withDensity(150).png().toBuffer(); // prettier-ignore
  writeFileSync(`${base}.png`, turned);
  return `${base}.png`;
}
async function scanned(...turns: number[]): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  for (const turn of turns) {
    const picture = await doc.embedPng(readFileSync(await pictured(turn)));
    doc.addPage([picture.width / 2, picture.height / 2]).drawImage(picture, { x: 0, y: 0, width: picture.width / 2, height: picture.height / 2 }); // prettier-ignore
  }
  return doc.save();
}

beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('steward');
});
afterAll(async () => {
  await server.close();
  rmSync(folder, { recursive: true });
});

describe('a picture of a page', () => {
  test('that was laid askew is laid level, keeps its size on paper, and is cut where one says', async () => {
    const path = await pictured(4);
    const out = await upright({ path, base: join(folder, 'level'), level: true });
    const straight = await sharp(readFileSync(await pictured(0))).metadata();
    expect(out!.resolution).toBe(150);
    // Level again, its lines are as sharp as before: another look finds nothing to turn.
    const again = await upright({ path: out!.path, base: join(folder, 'again'), level: true });
    expect((await sharp(again!.path).metadata()).width).toBe((await sharp(out!.path).metadata()).width);
    const cut = await upright({ path: await pictured(0), base: join(folder, 'cut'), turn: 90, crop: { left: 0, top: 0.5, width: 1, height: 0.5 } }); // prettier-ignore
    const { width, height } = await sharp(cut!.path).metadata();
    expect(width).toBe(straight.height);
    expect(Math.abs(height - straight.width / 2)).toBeLessThanOrEqual(1);
  });

  test('that is none is refused without more', async () => {
    writeFileSync(join(folder, 'none.png'), '\x89PNG\r\nnothing');
    expect(await upright({ path: join(folder, 'none.png'), base: join(folder, 'none') })).toBeUndefined();
  });
});

describe('a scan', () => {
  test('is read whether its pages lie askew, on their side or on their head', async () => {
    await me.import({ 'askew.pdf': await scanned(3, 90, 180) });
    for (const words of ['"keeper shut the gate at dusk"', '"ferry lay within"'])
      expect((await me.ask(words)).rows[0]!.hits).toHaveLength(3);
  });

  test('of several pages in one picture is a document of so many pages', async () => {
    const pages = [await pictured(0), await pictured(0)];
    const raw = await Promise.all(pages.map((p) => sharp(readFileSync(p)).flatten().raw().toBuffer({ resolveWithObject: true }))); // prettier-ignore
    const { width, height, channels } = raw[0]!.info;
    const both = Buffer.concat(raw.map((r) => r.data));
    const tiff = await sharp(both, { raw: { width, height: height * 2, channels, pageHeight: height } }).tiff().toBuffer(); // prettier-ignore
    const report = await me.import({ 'leaves.tiff': tiff });
    expect(JSON.stringify(report)).not.toMatch(/damaged/);
    const row = (await me.ask('file:leaves "went home"')).rows[0]!;
    expect(row.hits.map((h) => h.page)).toEqual([1, 2]);
  });

  test('is recognised anew, its corrected lines only where one says so, and what it was comes back by undo', async () => {
    await me.import({ 'anew.pdf': await scanned(0, 0) });
    const row = (await me.ask('file:anew')).rows[0]!;
    const at = (file: string): string => `/sources/${row.id}/files/${file}`;
    const lines = (file: string, page: number): Promise<LinesOfPage> => me.at('GET', `${at(file)}/lines?page=${page}`);
    const line = (await lines(row.fileId!, 1)).lines[1]!;
    await me.at('PUT', `${at(row.fileId!)}/lines`, { page: 1, line: line.line, text: 'The warden shut it', seen: line.text }); // prettier-ignore
    const anew = (body: object, file = row.fileId!) =>
      me.call<Changed & Problem>('POST', `/w/${me.workspace}${at(file)}/recognise`, body);
    // On paper it is as large as it came.
    expect(Math.abs((await lines(row.fileId!, 1)).width - 437)).toBeLessThan(3);
    const unsaid = await anew({});
    expect([unsaid.status, unsaid.body.detail]).toEqual([400, expect.stringMatching(/lines of 1 page were corrected/)]);
    const unknown = await anew({ languages: ['xyz'], corrected: 'keep' });
    expect([unknown.status, unknown.body.detail]).toEqual([400, expect.stringMatching(/apt-get install tesseract-ocr-xyz/)]); // prettier-ignore
    const mainFile = async (): Promise<string> => (await me.ask('file:anew')).rows[0]!.fileId!;
    await me.jobEnds((await anew({ corrected: 'keep' })).body.jobId!);
    await server.settle();
    const kept = await mainFile();
    expect(kept).not.toBe(row.fileId);
    expect((await lines(kept, 1)).lines[1]).toMatchObject({ text: 'The warden shut it', recognised: line.recognised });
    expect((await me.ask('warden')).total).toBe(1);
    await me.jobEnds((await anew({ corrected: 'anew' }, kept)).body.jobId!);
    await server.settle();
    expect((await lines(await mainFile(), 1)).lines[1]!.text).toBe(line.recognised);
    expect((await me.ask('warden')).total).toBe(0);
    await me.at('POST', '/undo');
    await server.settle();
    expect([await mainFile(), (await me.ask('warden')).total]).toEqual([kept, 1]);
    const { files } = await me.at<SourceDetail>('GET', `/sources/${row.id}`);
    expect(files.filter((f) => /anew/.test(f.name))).toHaveLength(2);
  });

  test('all of whose pages have corrected lines keeps them, however often it is recognised anew or brought again', async () => {
    const scan = await scanned(0);
    await me.import({ 'single.pdf': scan });
    const at = async (): Promise<string> => {
      const row = (await me.ask('file:single')).rows[0]!;
      return `/sources/${row.id}/files/${row.fileId!}`;
    };
    const read = async () => (await me.at<LinesOfPage>('GET', `${await at()}/lines?page=1`)).lines[1]!;
    const { line, text } = await read();
    await me.at('PUT', `${await at()}/lines`, { page: 1, line, text: 'The castellan shut it', seen: text });
    for (const _ of [1, 2, 3]) {
      const { jobId } = await me.at<Changed>('POST', `${await at()}/recognise`, { corrected: 'keep' });
      await me.jobEnds(jobId!);
      await server.settle();
      expect([(await read()).text, (await me.ask('castellan')).total]).toEqual(['The castellan shut it', 1]);
    }
    // The very file that has the corrections comes once more.
    const form = new FormData();
    const row = (await me.ask('file:single')).rows[0]!;
    form.append('file', new Blob([Buffer.from(await me.bytes(`/files/${row.fileId!}/content`))]), 'again.pdf');
    await me.jobEnds((await me.at<Changed>('POST', `/sources/${row.id}/files`, form)).jobId!);
    await server.settle();
    const plain = await me.at<PlainReply>('GET', `${await at()}/plain?from=1&count=1`);
    expect(plain.pages[0]!.paragraphs.map((p) => p.text)).toContain('The castellan shut it');
    expect([(await read()).text, (await me.ask('castellan')).total]).toEqual(['The castellan shut it', 1]);
  });

  test('is taken out as hOCR as it reads now, and an unsure word is proposed what looks like it', async () => {
    const row = (await me.ask('file:anew')).rows[0]!;
    const at = `/sources/${row.id}/files/${row.fileId!}`;
    await server.app.services.database.db
      .execute(sql`update pages set confidence = decode(repeat('28', length(words) / 12), 'hex'),
      text = replace(text, 'notice', 'notiee') where file_id = ${row.fileId!} and number = 2`);
    const { lines } = await me.at<LinesOfPage>('GET', `${at}/lines?page=2`);
    const line = lines.find((l) => l.text.includes('notiee'))!;
    const word = line.unsure.find((w) => line.text.slice(w.start, w.end) === 'notiee')!;
    expect(word.proposal).toBe('notice');
    await me.at('PUT', `${at}/lines`, { page: 2, line: line.line, text: line.text.replace('notiee', 'warning'), seen: line.text }); // prettier-ignore
    const written = Buffer.from(await me.bytes(`${at}/hocr`)).toString();
    expect(written).toMatch(/ocrx_word[^>]*>warning</);
  });

  test('of a file that had its words is not recognised', async () => {
    await me.import({ 'words.pdf': await makePdf([LINES]) });
    const row = (await me.ask('file:words')).rows[0]!;
    const reply = await me.call('POST', `/w/${me.workspace}/sources/${row.id}/files/${row.fileId!}/recognise`, {});
    expect(reply.status).toBe(400);
  });
});

test('the languages of a workspace are chosen by its stewards from what is installed', async () => {
  const at = `/w/${me.workspace}/recognition`;
  const { installed, chosen } = await me.at<RecognitionLanguages>('GET', '/recognition');
  expect(installed).toContainEqual({ code: 'eng', name: 'English' });
  expect(chosen).toEqual(['eng']);
  expect((await me.call('PUT', at, { languages: ['eng'] })).status).toBe(200);
  expect((await me.call('PUT', at, { languages: ['../eng'] })).status).toBe(400);
  const reader = await server.person('reader', me.workspace);
  expect((await reader.call('PUT', at, { languages: ['eng'] })).status).toBe(403);
});

describe('several pictures', () => {
  const send = async (pages: object | undefined, files: [string, Uint8Array | string][]) => {
    const { id } = await me.at<Changed>('POST', '/sources', { record: { type: 'manuscript', title: 'Folder 9' } });
    const form = new FormData();
    form.append('name', 'Letters of 1872');
    if (pages) form.append('pages', JSON.stringify(pages));
    for (const [name, bytes] of files) form.append('file', new Blob([Buffer.from(bytes)]), name);
    const reply = await me.call<Changed & Problem>('POST', `/w/${me.workspace}/sources/${id!}/pictures`, form);
    if (reply.body.jobId) await me.jobEnds(reply.body.jobId);
    await server.settle();
    return { id: id!, reply };
  };

  test('are one document in the order, turned and cut as one says', async () => {
    const pictures: [string, Uint8Array][] = [
      ['one.png', readFileSync(await pictured(0))],
      ['two.png', readFileSync(await pictured(90))],
    ];
    const crop = { left: 0, top: 0, width: 1, height: 0.5 };
    const { id } = await send({ pages: [{ picture: 1 }, { picture: 0, turn: 0, crop }] }, pictures);
    const { files } = await me.at<SourceDetail>('GET', `/sources/${id}`);
    expect(files).toMatchObject([{ name: 'Letters of 1872.pdf', pages: 2, state: 'text' }]);
    expect((await me.at<DocumentReply>('GET', `/sources/${id}/files/${files[0]!.id}`)).corrected).toBe(0);
    const sizes = await Promise.all([1, 2].map((page) => me.at<LinesOfPage>('GET', `/sources/${id}/files/${files[0]!.id}/lines?page=${page}`))); // prettier-ignore
    expect(sizes.map((p) => p.height > p.width)).toEqual([true, false]);
    await me.at('POST', '/undo');
    expect((await me.at<SourceDetail>('GET', `/sources/${id}`)).files).toEqual([]);
  });

  test('of which one is none, or pages of none that came, are refused with its name', async () => {
    const picture: [string, Uint8Array] = ['one.png', readFileSync(await pictured(0))];
    const none = await send(undefined, [picture, ['notes.txt', 'no picture']]);
    expect([none.reply.status, none.reply.body.detail]).toEqual([
      400,
      expect.stringContaining('notes.txt is no picture'),
    ]);
    const beyond = await send({ pages: [{ picture: 3 }] }, [picture]);
    expect([beyond.reply.status, beyond.reply.body.detail]).toEqual([400, expect.stringContaining('no picture 4')]);
    expect((await send({ pages: [{ picture: 0, turn: 45 }] }, [picture])).reply.status).toBe(400);
  });
});
