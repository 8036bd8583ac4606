/** The indexer beside sources that cannot be indexed, or not whole. */
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { SourceDetail } from '@pandecta/contract';
import { makePdf } from '../testing/pdf.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => {
  server = await startTestServer({ alone: true });
  me = await server.person('contributor');
});
afterAll(() => server.close());
const run = (text: string, values: unknown[] = []) => server.app.services.database.pool.query(text, values);

test('of a document with more words than an index holds the first are found, and it says how many are not', async () => {
  await me.import({ 'levels.pdf': await makePdf([['Levels of the lower gauge', 'Readings of every hour.']]) });
  const [row] = (await me.ask('')).rows;
  const { number } = (await run('select number from workspaces where id = $1', [me.workspace])).rows[0] as {
    number: number;
  };
  // Pages of a table of numbers, 200,000 of them, each another.
  for (let page = 2; page < 12; page += 1)
    await run(
      `insert into documents (workspace_id, kind, id, part, vector)
       select $1, 'page', $2, $3, array_to_tsvector(array(select $4 || ':' || ($3 * 1000000 + n) from generate_series(1, 20000) n))`,
      [me.workspace, row!.fileId, page, number.toString(36)],
    );
  await me.at('PATCH', `/sources/${row!.id}`, { fields: { note: 'Every hour since 1890' } });
  await server.settle();
  expect(await me.titles('note:1890')).toHaveLength(1);
  expect(await me.titles('2000001')).toHaveLength(1);
  const { leftOut } = await me.at<SourceDetail>('GET', `/sources/${row!.id}`);
  expect(leftOut).toBeGreaterThan(50_000);
  expect(leftOut).toBeLessThan(200_000);
});

test('a source that cannot be indexed stands aside, and the others are found; written anew it is tried again', async () => {
  await run(`create function refuse_text() returns trigger language plpgsql as $$ begin
    if new.fields::text like '%gnarl%' then raise exception 'it cannot be'; end if; return new; end $$`);
  await run(
    'create trigger refuse_text before insert or update on source_text for each row execute function refuse_text()',
  );
  const ris = (title: string): string => `TY  - BOOK\nTI  - ${title}\nER  - \n`;
  await me.import({ 'a.ris': ['Ebb', 'Gnarled piles', 'Flow', 'Slack'].map(ris).join('') });
  await server.settle();
  expect(await me.titles('ebb or flow or slack')).toEqual(['Ebb', 'Flow', 'Slack']);
  expect(await me.titles('gnarled')).toEqual([]);
  expect((await run('select failures from index_queue')).rows).toEqual([{ failures: 1 }]);
  await run('drop trigger refuse_text on source_text');
  const [piles] = (await me.ask('', '&sort=title')).rows.filter((r) => r.record.title === 'Gnarled piles');
  await me.at('PATCH', `/sources/${piles!.id}`, { fields: { note: 'Oak' } });
  await server.settle();
  expect(await me.titles('gnarled')).toEqual(['Gnarled piles']);
});
