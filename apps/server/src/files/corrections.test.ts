import { beforeAll, beforeEach, expect, test } from 'vitest';
import type { Changed, HistoryEntry, LinesOfPage, PlainReply, Problem, WithinReply } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';
import { makePdf } from '../testing/pdf.ts';

let server: TestServer;
let me: Person;
let at: string;
beforeAll(async () => {
  server = await startTestServer();
});
beforeEach(async () => {
  me = await server.person('contributor');
  const pages = [
    ['Ferrovv Point', 'Sir, the boatmen beg leave', 'to remind the Commission'],
    ['Second', 'leaf'],
  ];
  await me.import({ 'letter.pdf': await makePdf(pages) });
  const [row] = (await me.ask('')).rows;
  at = `/sources/${row!.id}/files/${row!.fileId}`;
});

const lines = (person = me): Promise<LinesOfPage> => person.at('GET', `${at}/lines?page=1`);
const texts = async (): Promise<string[]> => (await lines()).lines.map((l) => l.text);
const correct = (line: number, text: string | undefined, seen: string, person = me): Promise<Changed> =>
  person.at('PUT', `${at}/lines`, { page: 1, line, seen, ...(text !== undefined && { text }) });

test('a corrected line is what is read, searched and lit at its place; what was recognised is found no more', async () => {
  const before = (await lines()).lines[1]!;
  await correct(1, 'Sir, the ferrymen of February beg leave', 'Sir, the boatmen beg leave');
  await server.settle();
  expect((await texts())[1]).toBe('Sir, the ferrymen of February beg leave');
  expect((await lines()).lines[1]!.recognised).toBe('Sir, the boatmen beg leave');
  expect([(await me.titles('ferrymen')).length, (await me.titles('boatmen')).length]).toEqual([1, 0]);
  const { hits } = await me.at<WithinReply>('GET', `${at}/within?q=February`);
  const [rect] = hits[0]!.rects;
  expect([rect!.y0 >= before.box.y0 - 1, rect!.y1 <= before.box.y1 + 1, rect!.x0 > before.box.x0]).toEqual([
    true,
    true,
    true,
  ]);
});

test('corrections are told in the history, undone one by one, and put back as recognised', async () => {
  await correct(0, 'Ferrow Point', 'Ferrovv Point');
  await correct(1, 'Sir, the boatmen did beg leave', 'Sir, the boatmen beg leave');
  await me.at('POST', '/undo');
  expect(await texts()).toEqual(['Ferrow Point', 'Sir, the boatmen beg leave', 'to remind the Commission']);
  await correct(0, undefined, 'Ferrow Point');
  expect((await texts())[0]).toBe('Ferrovv Point');
  await me.at('POST', '/undo');
  expect((await texts())[0]).toBe('Ferrow Point');
  const { entries } = await me.at<{ entries: HistoryEntry[] }>('GET', '/changes');
  expect(entries.map((e) => e.says)).toContain('Corrected a line on page 1 to “Ferrow Point”');
});

test('of two who correct one line at once the second is told, and nothing of the first is lost', async () => {
  const other = await server.person('contributor', me.workspace);
  await correct(0, 'Ferrow Point', 'Ferrovv Point', other);
  const reply = await me.call<Problem>('PUT', `/w/${me.workspace}${at}/lines`, {
    page: 1,
    line: 0,
    text: 'Farrow Point',
    seen: 'Ferrovv Point',
  });
  expect([reply.status, reply.body.code]).toEqual([409, 'stale_edit']);
  // Another line of the page is no conflict.
  await correct(2, 'to remind the Commissioners', 'to remind the Commission');
  expect(await texts()).toEqual(['Ferrow Point', 'Sir, the boatmen beg leave', 'to remind the Commissioners']);
});

test('a line there is none of, and one a reader may not correct, are refused', async () => {
  const put = async (person: Person, line: number): Promise<number> =>
    (await person.call('PUT', `/w/${me.workspace}${at}/lines`, { page: 1, line, text: 'x', seen: 'y' })).status;
  expect(await put(me, 9)).toBe(400);
  expect(await put(await server.person('reader', me.workspace), 0)).toBe(403);
});

test('pages are read as paragraphs, with what was corrected', async () => {
  await correct(0, 'Ferrow Point', 'Ferrovv Point');
  const { pages } = await me.at<PlainReply>('GET', `${at}/plain?from=1&count=2`);
  expect(pages.map((p) => p.page)).toEqual([1, 2]);
  expect(pages[0]!.paragraphs.map((p) => p.text).join(' ')).toBe(
    'Ferrow Point Sir, the boatmen beg leave to remind the Commission',
  );
});
