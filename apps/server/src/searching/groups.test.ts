/** Answers in groups. */
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { NarrowReply, SourcePage } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('contributor');
  const items = Array.from({ length: 30 }, (_, i) => ({
    type: (['book', 'legal_case', 'map'] as const)[i % 3],
    title: `Tide ${String(i).padStart(2, '0')}`,
    abstract: `What the tide of day ${i} left behind. `.repeat(20),
    ...(i % 4 ? { issued: { 'date-parts': [[1900 + (i % 4)]] } } : {}),
    ...(i % 5 ? { publisher: ['Évora', 'ebb', 'Zoo', 'Anchor'][(i % 5) - 1] } : {}),
  }));
  await me.import({ 'tides.json': JSON.stringify(items) });
  const { rows } = await me.ask('', '&count=100&sort=title');
  for (const [name, every] of [['red', 2], ['blue', 3]] as const)
    await me.at('POST', '/tagging', { ids: rows.filter((_, i) => i % every === 0).map((r) => r.id), name, present: true }); // prettier-ignore
  await server.settle();
});
afterAll(() => server.close());

/** The groups in order, with how many are said to stand there and how many do. */
async function groups(query: string): Promise<[name: string, says: number, are: number][]> {
  const { rows } = await me.at<SourcePage>('GET', `/sources?count=200&${query}`);
  const out: [string, number, number][] = [];
  for (const { group } of rows) {
    if (out.at(-1)?.[0] !== group!.name) out.push([group!.name, group!.count, 0]);
    out.at(-1)![2] += 1;
  }
  return out;
}

test('lines stand in groups in the order of names as the language has it, those without a value last', async () => {
  expect(await groups('group=publisher&sort=title')).toEqual([
    ['Anchor', 6, 6],
    ['ebb', 6, 6],
    ['Évora', 6, 6],
    ['Zoo', 6, 6],
    ['', 6, 6],
  ]);
  expect((await groups('group=kind')).map((g) => g[0])).toEqual(['Book', 'Legal case', 'Map']);
  const { rows } = await me.at<SourcePage>('GET', '/sources?group=kind&sort=-title&count=10');
  expect(rows.map((r) => r.record.title)).toEqual([27, 24, 21, 18, 15, 12, 9, 6, 3, 0].map((n) => `Tide ${String(n).padStart(2, '0')}`)); // prettier-ignore
});

test('what bears several values stands once, under the first; years run from the latest', async () => {
  expect(await groups('group=tag')).toEqual([['blue', 10, 10], ['red', 10, 10], ['', 10, 10]]); // prettier-ignore
  expect(await groups('group=year')).toEqual([['1903', 7, 7], ['1902', 7, 7], ['1901', 8, 8], ['', 8, 8]]); // prettier-ignore
});

test('within a question groups count its answer; by what is no facet, nothing is grouped', async () => {
  expect(await groups('group=kind&q=has%3Atag%20publisher%3Azoo')).toEqual([['Book', 2, 2], ['Legal case', 1, 1], ['Map', 1, 1]]); // prettier-ignore
  expect((await me.call('GET', `/w/${me.workspace}/sources?group=shoe`)).status).toBe(400);
});

test('the beginnings of abstracts come where they are asked for; how many have no year is told whatever is narrowed to', async () => {
  const [plain, full] = [await me.ask('', '&count=1'), await me.ask('', '&count=1&abstracts=true')];
  expect([plain.rows[0]!.abstract, full.rows[0]!.abstract!.length]).toEqual([undefined, 320]);
  const { undated, years } = await me.at<NarrowReply>('GET', '/narrow?yearFrom=1902');
  expect([undated, years.reduce((n, y) => n + y.count, 0), (await me.ask('-has:date')).total]).toEqual([8, 22, 8]);
});
