import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { collections } from '../places/tables.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';
import { list, number, one, orNull, rows, text, truth } from './read.ts';
import { within } from './within.ts';

let server: TestServer;
let here: Person;
let there: Person;
beforeAll(async () => {
  server = await startTestServer({ alone: true });
  here = await server.person('steward');
  there = await server.person('steward');
});
afterAll(() => server.close());

const db = () => server.app.services.db;

test('what SQL selects is read as what it is said to be', async () => {
  const columns = { name: text(), count: number, known: truth, tags: list(text()), since: orNull(number) };
  const query = sql`select 'Tides' as name, 2::int as count, true as known, array['a', 'b'] as tags, null::int as since`;
  expect(await one(db(), columns, query)).toEqual({
    name: 'Tides',
    count: 2,
    known: true,
    tags: ['a', 'b'],
    since: null,
  });
});

test.each([
  ['is not selected', sql`select 1 as other`],
  ['is empty', sql`select null::int as count`],
  ['comes as text, as PostgreSQL counts', sql`select count(*) as count from users`],
])('a column that %s ends the query and is named', async (_, query) => {
  await expect(rows(db(), { count: number }, query)).rejects.toThrow(
    /the column “count” of a query is \w+, not a number/,
  );
});

test('within a workspace nothing of another is read, altered or deleted, whatever is asked', async () => {
  const { workspace } = there;
  const { id } = await there.at<{ id: string }>('POST', '/collections', { name: 'Theirs' });
  const mine = within(db(), here.workspace);
  expect(await mine.all(collections, { id: collections.id })).toEqual([]);
  expect(await mine.has(collections, sql`${collections.id} = ${id} or true`)).toBe(false);
  expect(await mine.update(collections, { name: 'Mine' }).returning({ id: collections.id })).toEqual([]);
  await mine.delete(collections);
  expect(await within(db(), workspace).first(collections, { name: collections.name })).toEqual({ name: 'Theirs' });
});
