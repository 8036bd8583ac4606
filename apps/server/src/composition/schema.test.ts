import { sql } from 'drizzle-orm';
import { getTableConfig, PgTable } from 'drizzle-orm/pg-core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { existsSync, readdirSync } from 'node:fs';
import { PURGED } from '../records/purged.ts';
import { startTestServer, type TestServer } from '../testing/server.ts';
import { rows, text, truth } from '../database/read.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer({ alone: true });
});
afterAll(() => server.close());

/** As the tool that writes migrations finds them: all that any `tables.ts` exports. */
const SERVER = new URL('../', import.meta.url);
const files = readdirSync(SERVER, { withFileTypes: true })
  .filter((f) => f.isDirectory())
  .map((f) => new URL(`${f.name}/tables.ts`, SERVER))
  .filter((file) => existsSync(file));
const modules = (await Promise.all(files.map((file) => import(file.href)))) as Record<string, unknown>[];
const declared = [...new Set(modules.flatMap((m) => Object.values(m)))]
  .filter((t) => t instanceof PgTable)
  .map(getTableConfig);

test('the tables are as the migrations make them: the same columns, kinds of values and keys', async () => {
  const found = await rows(
    server.app.services.db,
    { table: text(), column: text(), type: text(), needed: truth },
    sql`select c.relname as table, a.attname as column, format_type(a.atttypid, a.atttypmod) as type, a.attnotnull as needed
      from pg_class c join pg_attribute a on a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped
      where c.relkind = 'r' and c.relnamespace = 'public'::regnamespace order by 1, 2`,
  );
  const made = declared.flatMap((t) =>
    t.columns.map((c) => ({
      table: t.name,
      column: c.name,
      type: c.getSQLType(),
      needed: c.notNull || isKey(t, c.name),
    })),
  );
  const line = (x: (typeof made)[number]): string => `${x.table}.${x.column} ${x.type}${x.needed ? ' not null' : ''}`;
  expect(made.map(line).sort()).toEqual(found.map(line).sort());
  const indexes = await rows(
    server.app.services.db,
    { name: text() },
    sql`select i.indexname as name from pg_indexes i where schemaname = 'public'`,
  );
  const names = new Set(indexes.map((i) => i.name));
  expect(declared.flatMap((t) => t.indexes.map((i) => i.config.name!)).filter((n) => !names.has(n))).toEqual([]);
});

const isKey = (t: (typeof declared)[number], column: string): boolean =>
  t.primaryKeys.some((k) => k.columns.some((c) => c.name === column));

test('every table that speaks of sources says what becomes of its rows when one is removed for good', () => {
  const ofSources = declared.filter((t) => t.columns.some((c) => c.name === 'source_id'));
  const cascading = ofSources.filter((t) =>
    t.foreignKeys.some((k) => k.onDelete === 'cascade' && k.reference().columns.some((c) => c.name === 'source_id')),
  );
  const listed: readonly string[] = PURGED.all;
  expect(
    ofSources.map((t) => t.name).filter((n) => !listed.includes(n) && !cascading.some((c) => c.name === n)),
  ).toEqual([]);
  expect(ofSources.length).toBeGreaterThan(8);
});
