/** More like this, and the references a document lists at its end. */
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Changed, LikeReply, ListedSources, RelationsOf } from '@pandecta/contract';
import { makePdf } from '../testing/pdf.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
const ids = new Map<string, string>();
const RECORDS = [
  { title: 'Accretion behind tidal barriers', author: 'Vance, Ines' },
  { title: 'Barriers and accretion on the upper marsh', author: 'Okonjo, Marit' },
  { title: 'The upper marsh in winter', author: 'Vance, Ines' },
  { title: 'Licences of the harbour board', author: 'Quill, Tobias' },
  { title: 'A history of ferries and those who rowed them', author: 'Ottery, Amos' },
];

beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('contributor');
  for (const { title, author } of RECORDS) {
    const [family, given] = author.split(', ');
    const issued = { 'date-parts': [[2001]] };
    const record = { type: 'book', title, author: [{ family, given }], issued };
    ids.set(title, (await me.at<Changed>('POST', '/sources', { record })).id!);
  }
  // Words that many have make none alike.
  const common = Array.from({ length: 30 }, (_, i) => `TY  - BOOK\nTI  - Harbour ${i} and the board\nER  - \n`).join(
    '',
  );
  await me.import({ 'common.ris': common });
  await server.settle();
});
afterAll(() => server.close());
const id = (n: number): string => ids.get(RECORDS[n]!.title)!;
const like = async (n: number): Promise<LikeReply['like']> =>
  (await me.at<LikeReply>('GET', `/sources/${id(n)}/like`)).like;

test('rare words of records and people make sources alike, and it is said which', async () => {
  const found = await like(0);
  expect(found.map((f) => [f.title, f.words.toSorted(), f.people])).toEqual([
    ['Barriers and accretion on the upper marsh', ['accretion', 'barriers'], []],
    ['The upper marsh in winter', [], ['Vance, Ines']],
  ]);
  // “and those who them” say nothing, “board” and “harbour” are everywhere.
  expect([await like(4), await like(3)]).toEqual([[], []]);
});

test('what two cite, or are cited by, makes them alike', async () => {
  const cite = (from: number, to: number): Promise<unknown> =>
    me.at('PUT', '/relation', { from: id(from), to: id(to), as: 'cites', present: true });
  await cite(3, 2);
  await cite(4, 2);
  expect((await like(4)).map((f) => [f.title, f.references])).toEqual([['Licences of the harbour board', 1]]);
  expect((await me.call('GET', `/w/${me.workspace}/sources/018f0000-0000-7000-8000-000000000000/like`)).status).toBe(
    404,
  );
});

test('a document’s own list is read on request: what is here is said to be cited as one step', async () => {
  const lines = [
    'Vance, I. (2001). Accretion behind tidal barriers. Sallow: Quillback Press.',
    'Ottery, A. (2001). A history of ferries and those who rowed them. Sallow: Quillback Press.',
    'Nobody, N. (1999). What is not in this library. Northmere: Tern & Daughter.',
  ];
  await me.import({
    'list.pdf': await makePdf([
      ['On keepers and what they read', 'A keeper reads at night, and what he reads is here. It is a long list.'],
      ['References', ...lines],
    ]),
  });
  await server.settle();
  const [source] = (await me.ask('has:file')).rows;
  const read = (): Promise<ListedSources> => me.at<ListedSources>('GET', `/sources/${source!.id}/listed`);
  const { file, listed } = await read();
  expect([file, listed.map((l) => [l.text.slice(0, 8), l.page, l.here?.id ?? null, l.said])]).toEqual([
    'list.pdf',
    [
      ['Vance, I', 2, id(0), false],
      ['Ottery, ', 2, id(4), false],
      ['Nobody, ', 2, null, false],
    ],
  ]);
  const cited = [id(0), id(4)];
  const said = await me.at<Changed>('POST', `/sources/${source!.id}/cites`, { cited });
  expect([said.says, (await read()).listed.map((l) => l.said)]).toEqual(['It cites 2 sources', [true, true, false]]);
  expect((await me.titles('is:cited title:ferries')).length).toBe(1);
  expect((await me.at<Changed>('POST', `/sources/${source!.id}/cites`, { cited })).changeId).toBeNull();
  await me.at('POST', '/undo', {});
  expect((await me.at<RelationsOf>('GET', `/sources/${source!.id}/relations`)).relations).toEqual([]);
});

test('a source without text has no list, and says so by naming no file', async () => {
  expect(await me.at('GET', `/sources/${id(1)}/listed`)).toEqual({ file: null, listed: [] });
});
