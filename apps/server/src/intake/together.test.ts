/** What of the intake is decided on together: the complete ones, those that are here for certain, those of a folder. */
import { strToU8, zipSync } from 'fflate';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { Changed, ImportReport, IntakeDetail, IntakePage, IntakeSummary, ListedOnes, SourceDetail, Started } from '@pandecta/contract'; // prettier-ignore
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  me = await server.person('steward');
});

const book = (title: string, more: object = {}): object => ({
  id: title.replace(/\W+/g, '-'),
  type: 'book',
  title,
  author: [{ family: 'Okonjo', given: 'Marit' }],
  issued: { 'date-parts': [[2014]] },
  publisher: 'Tern Press',
  ISBN: '9780306406157',
  ...more,
});
const wait = (...books: object[]): Promise<ImportReport> =>
  me.import({ 'list.json': JSON.stringify(books) }, undefined, 'intake');
const type = async (text: string): Promise<ImportReport> => {
  const { jobId, importId } = await me.at<Started>('POST', '/gatherings', { text });
  await me.jobEnds(jobId);
  return me.at<ImportReport>('GET', `/imports/${importId}`);
};
const rows = async () => (await me.at<IntakePage>('GET', '/intake')).rows;
const summary = (): Promise<IntakeSummary> => me.at<IntakeSummary>('GET', '/intake-summary');
const TIDES = book('The Tides of the Sallow Estuary', { ISBN: undefined });

test('the complete ones are listed, and of them those are taken in that are left ticked', async () => {
  await wait(TIDES, book('Silt and Its Uses in Small Estuaries', { ISBN: undefined }), {
    type: 'book',
    title: 'No more',
  });
  const { total, rows: ones } = await me.at<ListedOnes>('GET', '/intake-complete');
  expect([total, ones.map((o) => [o.record.title, o.batch])]).toEqual([
    2,
    [
      ['The Tides of the Sallow Estuary', 'list.json'],
      ['Silt and Its Uses in Small Estuaries', 'list.json'],
    ],
  ]);
  await me.at('POST', '/taking-in', { ids: [ones[1]!.id], complete: true });
  expect(await me.titles('')).toEqual(['Silt and Its Uses in Small Estuaries']);
  expect((await summary()).waiting).toBe(2);
});

test('what waits twice is told so, and is among no complete ones', async () => {
  await wait(TIDES);
  await wait({ ...TIDES, title: 'The tides of the Sallow estuary', note: 'Lent by Ines' });
  await server.settle();
  const both = await rows();
  expect(both.map((r) => [r.twice, r.here])).toEqual([['list.json', undefined], ['list.json', undefined]]); // prettier-ignore
  expect((await summary()).complete).toBe(0);
  const { waiting } = await me.at<IntakeDetail>('GET', `/intake/${both[0]!.id}`);
  expect(waiting).toMatchObject([{ id: both[1]!.id, verdict: 'very likely' }]);
  await me.at('POST', '/taking-in', { ids: [both[0]!.id] });
  await server.settle();
  expect((await rows())[0]).toMatchObject({ here: { id: both[0]!.id } });
});

test('what was guessed in reading is told so, and is complete only once somebody has looked', async () => {
  await type('Vale, S. (1932). Harbours of the coast. Sallow Press.');
  const [row] = await rows();
  expect([row!.lacks, row!.guessed.includes('publisher'), (await summary()).complete]).toEqual([[], true, 0]);
  await wait(TIDES);
  expect((await summary()).complete).toBe(1);
});

test('those that are here for certain are joined together, as one change', async () => {
  const ids: string[] = [];
  for (const [title, DOI] of Object.entries({ 'The Tides of the Sallow Estuary': '10.5555/tides', 'Silt and Its Uses in Small Estuaries': '10.5555/silt' })) // prettier-ignore
    ids.push((await me.at<Changed>('POST', '/sources', { record: { ...book(title), id: undefined, ISBN: undefined, DOI } })).id!); // prettier-ignore
  await wait(
    book('The Tides of the Sallow Estuary', { DOI: '10.5555/Tides', ISBN: undefined, note: 'Lent by Ines' }),
    book('Silt and Its Uses in Small Estuaries', { DOI: '10.5555/silt', ISBN: undefined, 'publisher-place': 'Quay' }),
    book('Another Book Altogether', { author: [{ family: 'Quill', given: 'T.' }] }),
  );
  await server.settle();
  expect(await summary()).toMatchObject({ waiting: 3, certain: 2 });
  const { rows: ones } = await me.at<ListedOnes>('GET', '/intake-certain');
  expect(ones.map((o) => o.to)).toEqual(['The Tides of the Sallow Estuary', 'Silt and Its Uses in Small Estuaries']);
  const done = await me.at<Changed>('POST', '/joining', { matching: { scope: 'intake' } });
  expect(done.says).toBe('Joined 2 to sources here: 2 fields filled');
  expect((await summary()).waiting).toBe(1);
  const of = async (id: string) => (await me.at<SourceDetail>('GET', `/sources/${id}`)).record;
  expect([(await of(ids[0]!)).note, (await of(ids[1]!))['publisher-place']]).toEqual(['Lent by Ines', 'Quay']);
  await me.at('POST', `/changes/${done.changeId}/undo`);
  expect([(await summary()).waiting, (await of(ids[0]!)).note]).toEqual([3, undefined]);
});

test('two that are the same source here are both joined to it, and the first fills what is empty', async () => {
  const { id } = await me.at<Changed>('POST', '/sources', { record: { type: 'book', title: 'The Tides of the Sallow Estuary', DOI: '10.5555/31' } }); // prettier-ignore
  await wait(book('The Tides of the Sallow Estuary', { DOI: '10.5555/31', note: 'One' }));
  await wait(book('The Tides of the Sallow Estuary', { DOI: '10.5555/31', note: 'Two', 'publisher-place': 'Quay' }));
  await server.settle();
  await me.at('POST', '/joining', { ids: (await rows()).map((r) => r.id).toReversed() });
  const { record } = await me.at<SourceDetail>('GET', `/sources/${id}`);
  expect([(await summary()).waiting, record.note, record['publisher-place']]).toEqual([0, 'One', 'Quay']);
});

test('a pasted list keeps its order, whatever was read first', async () => {
  const lines = ['https://nobody.invalid/page', 'Vale, S. Harbours of the coast. Quay: Tern Press, 1932.', '978-0-00-712345-?', 'Okonjo, Marit. The Licensed Gate. Quay: Tern Press, 1999.']; // prettier-ignore
  await type(lines.join('\n\n'));
  expect((await rows()).map((r) => r.record.title ?? r.record.URL)).toEqual(['https://nobody.invalid/page', 'Harbours of the coast', '978-0-00-712345-?', 'The Licensed Gate']); // prettier-ignore
});

test('a wrong ISBN says what its digit would be; where nobody can be asked, that is said too', async () => {
  await type('978-0-306-40615-?\n\n9780306406157');
  const [wrong, unknown] = await rows();
  expect(wrong).toMatchObject({ unread: true, trouble: 'ISBN, check digit wrong: it would be 7' });
  expect(unknown!.lookedUp).toBe('silent');
  expect(unknown!.trouble).toMatch(/^This workspace has no catalogues\. A steward can add one/);
});

test('folders of an archive become collections when something of them is taken in', async () => {
  const one = (title: string): Uint8Array => strToU8(JSON.stringify([book(title, { ISBN: undefined })]));
  const zip = zipSync({ 'Box 4/a.json': one('The Tides of the Sallow Estuary'), 'Box 5/b.json': one('Silt and Its Uses') }); // prettier-ignore
  const form = new FormData();
  form.append('destination', JSON.stringify({ collections: [], tags: [], reading: null, folders: true }));
  form.append('through', 'intake');
  form.append('file', new Blob([zip as Uint8Array<ArrayBuffer>]), 'boxes.zip');
  const { jobId, importId } = await me.at<Started>('POST', '/imports', form);
  await me.jobEnds(jobId);
  const { messages } = await me.at<ImportReport>('GET', `/imports/${importId}`);
  expect(messages).toMatchObject([{ what: 'Folders: Box 4, Box 5', done: 'each becomes a collection once something of it is taken in' }]); // prettier-ignore
  const names = async (): Promise<string[]> => (await me.at<{ collections: { name: string }[] }>('GET', '/places')).collections.map((c) => c.name); // prettier-ignore
  expect(await names()).toEqual([]);
  const first = (await rows()).find((r) => /Tides/.test(r.record.title!))!;
  const done = await me.at<Changed>('POST', '/taking-in', { ids: [first.id] });
  expect([done.says, await names()]).toEqual(['Took in 1 source, filed by their folders', ['Box 4']]);
  await me.at('POST', `/changes/${done.changeId}/undo`);
  expect([await names(), (await summary()).waiting]).toEqual([[], 2]);
});
