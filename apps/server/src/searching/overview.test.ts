/** The overview as a table, and what is offered as one types, beside what plain SQL counts. */
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { OverviewReply, SuggestedValues } from '@pandecta/contract';
import { number, rows, text } from '../database/read.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => {
  server = await startTestServer({ alone: true });
  me = await server.person('steward');
  const items = Array.from({ length: 40 }, (_, i) => ({
    type: i % 3 ? 'article-journal' : 'book',
    title: `Tides ${i}`,
    'container-title': i % 3 ? `Journal ${i % 5}` : undefined,
    author: [
      { family: ['Okonjo', 'Vance', 'Ito'][i % 3], given: 'A.' },
      ...(i % 4 ? [] : [{ family: 'Marsh', given: 'T.' }]),
    ],
    issued: { 'date-parts': [[1900 + ((i * 7) % 60)]] },
  }));
  await me.import({ 'overview.json': JSON.stringify(items) });
  const { rows: all } = await me.ask('', '&count=100');
  for (const [i, name] of ['used', 'adverse', 'Sediment budget'].entries())
    await me.at('POST', '/tagging', {
      ids: all.filter((_, n) => n % (i + 2) === 0).map((r) => r.id),
      name,
      present: true,
    });
  await server.settle();
});
afterAll(() => server.close());

const overview = (query: string): Promise<OverviewReply> => me.at('GET', `/overview?${query}`);
const cellsOf = ({ rows: r, columns: c, cells }: OverviewReply): [string, string, number][] =>
  cells.map(({ row, column, count }): [string, string, number] => [r[row]!.name, c[column]!.name, count]).sort();

test('tags by kinds are what plain SQL counts, of all and of what a question finds', async () => {
  const plain = await rows(
    server.app.services.db,
    { tag: text(), kind: text(), n: number },
    sql`select t.name as tag, s.record->>'type' as kind, count(*)::int as n from sources s
      join source_tags st on st.workspace_id = s.workspace_id and st.source_id = s.id
      join tags t on t.workspace_id = s.workspace_id and t.id = st.tag_id where s.workspace_id = ${me.workspace} group by 1, 2`,
  );
  const named: Record<string, string> = { book: 'Book', 'article-journal': 'Journal article' };
  expect(cellsOf(await overview('rows=tag&columns=kind'))).toEqual(
    plain.map((p): [string, string, number] => [p.tag, named[p.kind]!, p.n]).sort(),
  );
  const books = await overview('rows=tag&columns=kind&q=kind:book');
  expect(books.columns.map((c) => [c.name, c.count])).toEqual([['Book', 14]]);
});

test('people with people tell who appears together, each with themselves as often as they appear', async () => {
  const { rows: people, cells } = await overview('rows=person&columns=person');
  const of = (a: string, b: string): number =>
    cells.find((c) => people[c.row]!.name === a && people[c.column]!.name === b)?.count ?? 0;
  expect(of('Marsh, T.', 'Marsh, T.')).toBe(10);
  expect(of('Okonjo, A.', 'Marsh, T.') + of('Vance, A.', 'Marsh, T.') + of('Ito, A.', 'Marsh, T.')).toBe(10);
  expect(of('Okonjo, A.', 'Vance, A.')).toBe(0);
});

test('years stand in their order, and of many values the most frequent are told with how many there are', async () => {
  const byYear = await overview('rows=kind&columns=year');
  expect(byYear.columns.map((c) => Number(c.key))).toEqual(byYear.columns.map((_, i) => 1900 + i));
  const some = await overview('rows=container&columns=kind&most=2');
  expect([some.rows.length, some.rowsInAll]).toEqual([2, 5]);
});

test.each([
  ['tag', 'bud', [['Sediment budget', 10]]],
  ['tag', 'SED', [['Sediment budget', 10]]],
  ['person', 'okon', [['Okonjo, A.', 14]]],
  ['recipient', 'ito', [['Ito, A.', 13]]],
  ['container', '4', [['Journal 4', 5]]],
  ['kind', 'journal', [['Journal article', undefined]]],
  ['tag', 'zzz', []],
  ['title', 'tides', []],
])('of %s beginning with “%s” is offered what there is, with its count', async (field, begins, offered) => {
  const { values } = await me.at<SuggestedValues>('GET', `/suggest?field=${field}&begins=${begins}`);
  expect(values.map((v) => [v.value, v.count])).toEqual(offered);
});
