import { beforeAll, describe, expect, test } from 'vitest';
import type {
  Changed,
  DocumentReply,
  HistoryEntry,
  MarksReply,
  Problem,
  SourceDetail,
  WithinReply,
} from '@pandecta/contract';
import { PDFDocument, PDFName, PDFString } from '@cantoo/pdf-lib';
import { makePdf } from '../testing/pdf.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let other: Person;
let source: string;
let file: string;
let senses: DocumentReply['senses'];
beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('steward');
  other = await server.person('contributor', me.workspace);
  const bytes = await makePdf([
    ['Hours of the lower gate', 'The keeper shut the gate at dusk.'],
    ['Second leaf'],
    ['Third'],
  ]);
  await me.import({ 'hours.pdf': bytes });
  const [row] = (await me.ask('')).rows;
  [source, file] = [row!.id, row!.fileId!];
  senses = (await open()).senses;
});

const open = (person = me): Promise<DocumentReply> => person.at('GET', `/sources/${source}/files/${file}`);
const mark = (more: object = {}, person = me): Promise<Changed> =>
  person.at('POST', `/sources/${source}/files/${file}/marks`, {
    page: 1,
    sense: senses[0]!.id,
    quote: { exact: 'shut the gate', prefix: '', suffix: '' },
    rects: [{ x0: 40, y0: 90, x1: 120, y1: 104 }],
    ...more,
  });
const list = (asked: object = {}, person = me): Promise<MarksReply> => person.at('POST', '/marks/list', asked);
async function fresh(): Promise<void> {
  for (const person of [me, other])
    for (const m of (await open(person)).marks) await person.call('DELETE', `/w/${me.workspace}/marks/${m.id}`);
}

describe('a mark for oneself alone', () => {
  test('is nobody else’s to see, count, find, alter or read of, until it is shown to all', async () => {
    await fresh();
    const reader = await server.person('reader', me.workspace);
    const { id } = await mark({ personal: true, gloss: 'Quixotic keeper' }, reader);
    await server.settle();
    expect((await open(reader)).marks).toMatchObject([{ id, personal: true, by: 'A reader' }]);
    expect([(await reader.ask('quixotic')).total, (await reader.ask('has:mark')).total]).toEqual([1, 1]);
    expect((await reader.ask('has:mark')).rows[0]!.marks).toBe(1);
    expect([(await open()).marks, (await list()).total, (await me.ask('quixotic')).total]).toEqual([[], 0, 0]);
    expect([(await me.ask('has:mark')).total, (await me.ask('')).rows[0]!.marks]).toEqual([0, 0]);
    expect((await me.at<SourceDetail>('GET', `/sources/${source}`)).files[0]!.marks).toBe(0);
    const before = await me.at<{ entries: HistoryEntry[] }>('GET', `/sources/${source}/history`);
    expect(before.entries.some((e) => /A reader/.test(e.by))).toBe(false);
    for (const [method, path, body] of [
      ['PATCH', `/marks/${id}`, { gloss: 'Mine' }],
      ['DELETE', `/marks/${id}`, undefined],
      ['POST', `/marks/${id}/share`, undefined],
    ] as const)
      expect((await me.call(method, `/w/${me.workspace}${path}`, body)).status).toBe(404);
    await reader.at('PATCH', `/marks/${id}`, { gloss: 'Quixotic keeper indeed' });
    await me.at('POST', '/presence', { ids: [source], to: 'bin' });
    expect((await me.at<{ marks: number }>('GET', '/bin')).marks).toBe(0);
    await me.at('POST', '/presence', { ids: [source], to: 'live' });
    // To show it takes the right to mark.
    expect((await reader.call('POST', `/w/${me.workspace}/marks/${id}/share`)).status).toBe(403);
  });

  test('is shown to all members by whoever may mark, and hidden again by undo', async () => {
    await fresh();
    const { id } = await mark({ personal: true, gloss: 'Halcyon' }, other);
    await other.at('POST', `/marks/${id}/share`);
    await server.settle();
    expect([(await me.ask('halcyon')).total, (await me.ask('sense:Claim')).total]).toEqual([1, 1]);
    await other.at('POST', '/undo');
    await server.settle();
    expect([(await me.ask('halcyon')).total, (await me.ask('sense:Claim')).total]).toEqual([0, 0]);
    expect((await other.ask('sense:Claim')).total).toBe(1);
  });

  test('beside one all members see counts its source once', async () => {
    await fresh();
    await mark();
    await mark({ personal: true });
    const narrow = await me.at<{ facets: { type: string; values: { count: number }[] }[] }>('GET', '/narrow');
    expect(narrow.facets.find((f) => f.type === 'sense')!.values.map((v) => v.count)).toEqual([1]);
  });
});

test('a line or a number is set, and pages are taken, through a source that has the file alone', async () => {
  const elsewhere = (await me.at<Changed>('POST', '/sources', { record: { type: 'book', title: 'Elsewhere' } })).id!;
  const at = `/w/${me.workspace}/sources/${elsewhere}/files/${file}`;
  for (const [method, path, body] of [
    ['PUT', '/lines', { page: 1, line: 0, text: 'x', seen: 'Hours of the lower gate' }],
    ['POST', '/numbers', { page: 1, number: '12' }],
    ['POST', '/parts', { pages: [1], record: { type: 'book', title: 'x' } }],
    ['GET', '/parts', undefined],
    ['GET', '/lines?page=1', undefined],
    ['GET', '/plain?from=1&count=1', undefined],
  ] as const)
    expect([path, (await me.call(method, at + path, body)).status]).toEqual([path, 404]);
});

describe('a shape', () => {
  test('is that of the mark, is another when it is changed, and is undone', async () => {
    await fresh();
    const { id } = await mark({ shape: 'underline' });
    await me.at('PATCH', `/marks/${id}`, { shape: 'strike' });
    expect((await open()).marks[0]!.shape).toBe('strike');
    await me.at('POST', '/undo');
    expect((await open()).marks[0]!.shape).toBe('underline');
  });

  test('of a region has one place', async () => {
    const reply = await me.call<Problem>('POST', `/w/${me.workspace}/sources/${source}/files/${file}/marks`, {
      page: 1,
      sense: senses[0]!.id,
      shape: 'region',
      quote: { exact: '', prefix: '', suffix: '' },
      rects: [],
    });
    expect([reply.status, reply.body.detail]).toEqual([400, expect.stringMatching(/one place/)]);
  });
});

describe('marks across sources', () => {
  test('are filtered by question, words, sense, shape and person, and counted by each', async () => {
    await fresh();
    await mark({ gloss: 'At what hour?' });
    await mark({
      sense: senses[1]!.id,
      shape: 'underline',
      page: 2,
      quote: { exact: 'Second', prefix: '', suffix: '' },
    });
    await mark({ page: 3, quote: { exact: 'Third', prefix: '', suffix: '' } }, other);
    const all = await list();
    expect([all.total, all.marks.map((m) => m.page)]).toEqual([3, [1, 2, 3]]);
    expect(all.senses.map((s) => [s.name, s.count])).toEqual([
      ['Claim', 2],
      ['Evidence', 1],
    ]);
    expect(all.people.map((p) => [p.name, p.count])).toEqual([
      ['A steward', 2],
      ['A contributor', 1],
    ]);
    expect(all.shapes.map((s) => [s.key, s.count])).toEqual([
      ['highlight', 2],
      ['underline', 1],
    ]);
    const pages = async (asked: object): Promise<number[]> => (await list(asked)).marks.map((m) => m.page);
    expect(await pages({ words: 'HOUR' })).toEqual([1]);
    expect(await pages({ senses: [senses[1]!.id] })).toEqual([2]);
    expect(await pages({ shapes: ['underline'] })).toEqual([2]);
    expect(await pages({ people: [all.people[1]!.key] })).toEqual([3]);
    expect(await pages({ glossed: true })).toEqual([1]);
    expect(await pages({ sort: 'newest' })).toEqual([3, 2, 1]);
    expect(await pages({ sources: { q: 'nothing-has-this' } })).toEqual([]);
    expect(await pages({ sources: { q: 'hours' }, from: 1, count: 1 })).toEqual([2]);
  });

  test('are written to a file with citation and page, in the order asked for', async () => {
    await fresh();
    await mark({ gloss: 'At what hour?' });
    const file = (format: string): Promise<unknown> => me.at('POST', '/marks/export', { format, style: 'apa' });
    expect(await file('markdown')).toMatch(/> shut the gate\n\n\(.*p\. 1\) \*\*Claim\*\*, A steward\n\nAt what hour\?/);
    expect(await file('web-annotation')).toMatchObject({ items: [{ motivation: 'commenting' }] });
    expect(await file('csv')).toMatch(/^Source,Title,Page/);
  });
});

describe('the page that is cited', () => {
  /** Pages i, ii, 1, 2 by the labels of the file (ISO 32000-1, 12.4.2). */
  async function labelled(): Promise<Uint8Array> {
    const document = await PDFDocument.load(
      await makePdf([['Cover of tides'], ['Preface on tides'], ['Tides begin'], ['Tides go on']]),
    );
    const { context } = document;
    const label = (values: Record<string, PDFName | number | PDFString>) => context.obj(values as never);
    const nums = context.obj([]);
    nums.push(context.obj(0));
    nums.push(label({ S: PDFName.of('r') }));
    nums.push(context.obj(2));
    nums.push(label({ S: PDFName.of('D'), St: 1 }));
    document.catalog.set(PDFName.of('PageLabels'), context.obj({ Nums: nums } as never));
    return document.save();
  }

  test('is that of the file’s labels in the document, its hits and the ledger', async () => {
    const person = await server.person('steward');
    await person.import({ 'tides.pdf': await labelled() });
    const row = (await person.ask('preface')).rows[0]!;
    expect(row.hits[0]!.where).toBe('p. ii');
    const doc = await person.at<DocumentReply>('GET', `/sources/${row.id}/files/${row.fileId}`);
    expect(doc.numbers.origin).toBe('labels');
    const { hits } = await person.at<WithinReply>('GET', `/sources/${row.id}/files/${row.fileId}/within?q=tides`);
    expect(hits.map((h) => h.cited)).toEqual(['i', 'ii', '1', '2']);
  });

  test('is counted from the record’s pages, and set by hand once where it is another, which is undone', async () => {
    await fresh();
    await mark({ page: 2 });
    await me.at('PATCH', `/sources/${source}`, { fields: { page: '201-203' } });
    expect((await open()).marks[0]!.cited).toBe('202');
    const numbers = `/sources/${source}/files/${file}/numbers`;
    await me.at('POST', numbers, { page: 2, number: 'xii' });
    expect([(await open()).marks[0]!.cited, (await open()).numbers.origin]).toEqual(['xii', 'by hand']);
    const wrong = await me.call<Problem>('POST', `/w/${me.workspace}${numbers}`, { page: 2, number: 'cover' });
    expect([wrong.status, wrong.body.detail]).toEqual([400, expect.stringMatching(/“cover” is no page number/)]);
    await me.at('POST', numbers, { page: 2 });
    expect((await open()).marks[0]!.cited).toBe('202');
    await me.at('POST', '/undo');
    expect((await open()).marks[0]!.cited).toBe('xii');
    await me.at('POST', '/undo');
    expect((await open()).marks[0]!.cited).toBe('202');
  });
});

describe('the place that is cited', () => {
  test('of a judgment is its numbered paragraph: in marks, hits and exports, as soon as it is a judgment', async () => {
    const first = Array.from({ length: 4 }, (_, i) => [
      `[${i + 1}] The tidal Board says so ${i}.`,
      'It goes on.',
    ]).flat();
    const bytes = await makePdf([
      ['Marsh v Harbour Board', ...first],
      ['Judgment', 'It goes on here as well.', '[5] The gate was shut.', 'The ferry lay within.', '[6] Allowed.'],
    ]);
    await me.import({ 'judgment.pdf': bytes });
    const row = (await me.ask('ferry')).rows[0]!;
    const at = `/sources/${row.id}/files/${row.fileId!}`;
    const put = (exact: string): Promise<Changed> =>
      me.at('POST', `${at}/marks`, {
        page: 2,
        sense: senses[0]!.id,
        quote: { exact, prefix: '', suffix: '' },
        rects: [],
      });
    await put('lay within');
    await put('It goes on');
    const cited = async (): Promise<string[]> => (await me.at<DocumentReply>('GET', at)).marks.map((m) => m.cited);
    expect(await cited()).toEqual(['2', '2']);
    await me.at('PATCH', `/sources/${row.id}`, { fields: { type: 'legal_case' } });
    expect(await cited()).toEqual(['para 4', 'para 5']);
    expect((await me.at<WithinReply>('GET', `${at}/within?q=ferry`)).hits[0]!.cited).toBe('para 5');
    const reply = await me.call('POST', `/w/${me.workspace}/marks/export`, {
      format: 'markdown',
      words: 'lay within',
      style: 'apa',
    });
    expect(JSON.stringify(reply)).toContain('para 5)');
  });

  test('of a leaf is the side one was told', async () => {
    await me.at('POST', `/sources/${source}/files/${file}/numbers`, { page: 2, number: '12v' });
    await mark({ page: 3 });
    expect((await open()).marks.find((m) => m.page === 3)!.cited).toBe('13r');
    await me.at('POST', '/undo');
    await me.at('POST', '/undo');
  });
});
