/** Marks where their document changes: a newer file, a corrected line. */
import { beforeAll, beforeEach, expect, test } from 'vitest';
import type { Changed, DocumentReply, HistoryEntry, LinesOfPage, Mark } from '@pandecta/contract';
import { makePdf } from '../testing/pdf.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let source: string;
let at: string;
let sense: string;
beforeAll(async () => {
  server = await startTestServer();
});

const OLD = [
  ['Of the lower gate', 'The keeper shut it at dusk', 'and the boatmen beg leave to wait'],
  ['Of the upper gate', 'Nobody shuts it but the tide', 'as the ordinance of 1740 has it'],
];
beforeEach(async () => {
  me = await server.person('contributor');
  await me.import({ 'gates.pdf': await makePdf(OLD) });
  const [row] = (await me.ask('')).rows;
  source = row!.id;
  at = `/sources/${source}/files/${row!.fileId}`;
  sense = (await document()).senses[0]!.id;
});

const document = (where = at, person = me): Promise<DocumentReply> => person.at('GET', where);
const mark = (exact: string, more: object = {}, person = me): Promise<Changed> =>
  person.at('POST', `${at}/marks`, { page: 1, sense, quote: { exact, prefix: '', suffix: '' }, rects: [], ...more });
async function replace(pages: string[][]): Promise<string> {
  const form = new FormData();
  form.append('instead', at.split('/').at(-1)!);
  form.append('file', new Blob([Buffer.from(await makePdf(pages))]), 'newer.pdf');
  const { jobId } = await me.at<Changed>('POST', `/sources/${source}/files`, form);
  await me.jobEnds(jobId!);
  const [row] = (await me.ask('')).rows;
  return `/sources/${source}/files/${row!.fileId}`;
}
const places = (marks: Mark[]) => marks.map((m) => [m.quote.exact, m.page, m.unplaced, m.rects.length]);

test('a newer file takes the marks along: to their words, wherever they stand; what is gone is listed, not dropped', async () => {
  await mark('shut it at dusk');
  await mark('Nobody shuts it', { page: 2 });
  await mark('boatmen beg leave');
  const newer = await replace([['Preface to the second edition'], OLD[0]!.slice(0, 2), OLD[1]!]);
  expect(places((await document(newer)).marks).sort()).toEqual([
    ['Nobody shuts it', 3, false, 1],
    ['boatmen beg leave', 1, true, 0],
    ['shut it at dusk', 2, false, 1],
  ]);
  const { entries } = await me.at<{ entries: HistoryEntry[] }>('GET', '/changes');
  expect(entries[0]!.says).toBe(
    'Put newer.pdf in place of gates.pdf; its 3 marks came along, 1 of them without a place',
  );
});

test('undoing the replacement puts every mark back where it stood', async () => {
  await mark('shut it at dusk');
  await mark('boatmen beg leave');
  const before = (await document()).marks;
  await replace([['Something else entirely']]);
  await me.at('POST', '/undo');
  expect((await document()).marks).toEqual(before);
});

test('a figure moves with its page, known by its words; where no page is like it, it waits for a place', async () => {
  const region = {
    shape: 'region',
    quote: { exact: '', prefix: '', suffix: '' },
    rects: [{ x0: 50, y0: 50, x1: 90, y1: 90 }],
  };
  await me.at('POST', `${at}/marks`, { page: 2, sense, ...region });
  const newer = await replace([['Preface'], OLD[0]!, OLD[1]!]);
  const [moved] = (await document(newer)).marks;
  expect([moved!.page, moved!.unplaced, moved!.rects]).toEqual([3, false, region.rects]);
  at = newer;
  const third = await replace([['Quite another book about herring']]);
  expect((await document(third)).marks[0]!.unplaced).toBe(true);
});

test('a mark without a place is placed by hand, and that is undone', async () => {
  await mark('boatmen beg leave');
  const newer = await replace([['The ferrymen ask to wait'], ['Of the upper gate']]);
  const [lost] = (await document(newer)).marks;
  const place = { page: 1, quote: { exact: 'ferrymen ask', prefix: 'The ', suffix: ' to wait' }, rects: [] };
  await me.at('PATCH', `/marks/${lost!.id}`, { place });
  expect(places((await document(newer)).marks)).toEqual([['ferrymen ask', 1, false, 1]]);
  await me.at('POST', '/undo');
  expect(places((await document(newer)).marks)).toEqual([['boatmen beg leave', 1, true, 0]]);
});

test('another’s own mark goes along, and the one who replaced the file hears nothing of it', async () => {
  const other = await server.person('reader', me.workspace);
  await mark('shut it at dusk', { personal: true }, other);
  const newer = await replace([['Preface'], OLD[0]!]);
  expect(places((await document(newer, other)).marks)).toEqual([['shut it at dusk', 2, false, 1]]);
  expect((await document(newer)).marks).toEqual([]);
  const { entries } = await me.at<{ entries: HistoryEntry[] }>('GET', '/changes');
  expect(JSON.stringify(entries)).not.toMatch(/dusk|mark/);
});

test('a corrected line alters what its marks quote and no other’s, and undone it is as it was', async () => {
  await mark('boatmen beg leave');
  await mark('shut it at dusk');
  const before = (await document()).marks;
  const { lines } = await me.at<LinesOfPage>('GET', `${at}/lines?page=1`);
  const line = lines.find((l) => l.text.includes('boatmen'))!;
  const text = line.text.replace('boatmen beg', 'ferrymen of February beg');
  await me.at('PUT', `${at}/lines`, { page: 1, line: line.line, seen: line.text, text });
  const { marks } = await document();
  const of = (id: string) => marks.find((m) => m.id === id)!;
  const lineBox = line.box;
  const [corrected, other] = before.map((m) => of(m.id)).sort((a, b) => a.quote.exact.localeCompare(b.quote.exact));
  expect([corrected!.quote.exact, other!.quote.exact]).toEqual(['ferrymen of February beg leave', 'shut it at dusk']);
  expect(corrected!.rects).toHaveLength(1);
  expect(corrected!.rects[0]!.x1).toBeLessThanOrEqual(lineBox.x1 + 1);
  expect(other).toEqual(before.find((m) => m.id === other!.id));
  await me.at('POST', '/undo');
  expect((await document()).marks).toEqual(before);
});
