/** A backup, made while people work, holds all that was there; what is restored of it starts, and is the same. */
import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { afterAll, afterEach, beforeAll, beforeEach, expect, test } from 'vitest';
import { backUp, restore } from '../../../../scripts/lib/backup.mjs';
import { binFolder } from '../../../../scripts/lib/postgres.mjs';
import { buildApp } from '../composition/app.ts';
import { makeLibrary } from '../testing/library.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let steward: Person;
let ids: Record<string, string>;
const admin = new pg.Client({ connectionString: process.env.PANDECTA_TEST_DATABASE });
beforeAll(async () => {
  await admin.connect();
  server = await startTestServer({ alone: true });
  steward = await server.person('steward');
  ids = await makeLibrary(steward);
  await server.settle();
});
afterAll(async () => {
  await server.close();
  await admin.end();
});

let to: string;
let data: string;
let url: string;
let name: string;
beforeEach(async () => {
  to = mkdtempSync(join(tmpdir(), 'pandecta-backup-'));
  data = mkdtempSync(join(tmpdir(), 'pandecta-restored-'));
  name = `restored_${Math.random().toString(36).slice(2)}`;
  await admin.query(`create database ${name}`);
  const of = new URL(process.env.PANDECTA_TEST_DATABASE!);
  of.pathname = `/${name}`;
  url = of.href;
});
afterEach(async () => {
  await admin.query(`drop database ${name} with (force)`);
  for (const folder of [to, data]) rmSync(folder, { recursive: true, force: true });
});

const bin = binFolder();
const here = (): { url: string; data: string; bin: string } => {
  const { databaseUrl, dataFolder } = server.app.services.config;
  return { url: databaseUrl, data: dataFolder, bin };
};
const there = (): { url: string; data: string; bin: string } => ({ url, data, bin });
/** Every table with a digest of its rows. */
async function digests(connectionString: string): Promise<Record<string, string>> {
  const client = new pg.Client({ connectionString });
  await client.connect();
  const { rows: tables } = await client.query<{ name: string }>(
    `select format('%I.%I', schemaname, tablename) as name from pg_tables where schemaname in ('public', 'drizzle') order by 1`,
  );
  const all: Record<string, string> = {};
  for (const { name: table } of tables)
    all[table] = (
      await client.query<{ d: string }>(
        `select count(*) || ' ' || coalesce(md5(string_agg(t::text, '' order by t::text)), '') as d from ${table} t`,
      )
    ).rows[0]!.d;
  await client.end();
  return all;
}
const filesIn = (folder: string): string[] =>
  existsSync(join(folder, 'files'))
    ? readdirSync(join(folder, 'files'), { recursive: true, withFileTypes: true })
        .filter((e) => e.isFile() && e.name.length === 64)
        .map((e) => e.name)
        .sort()
    : [];

test('restored, every row of every table and every file is what it was, and a server starts on it', async () => {
  const before = await digests(here().url);
  await backUp(here(), to);
  await restore(to, there());
  expect(await digests(url)).toEqual(before);
  expect(Object.keys(before).length).toBeGreaterThan(40);
  expect([filesIn(data), filesIn(data).length > 0]).toEqual([filesIn(here().data), true]);
  const app = await buildApp({ ...server.app.services.config, databaseUrl: url, dataFolder: data });
  try {
    await app.start();
    const base = await app.app.listen({ host: '127.0.0.1', port: 0 });
    const headers = { cookie: steward.cookie };
    const source = `/api/w/${steward.workspace}/sources/${ids.source}`;
    const both = await Promise.all([server.base, base].map(async (b) => (await fetch(b + source, { headers })).json()));
    expect(both[1]).toEqual(both[0]);
    const file = await fetch(`${base}/api/w/${steward.workspace}/files/${ids.file}/content`, { headers });
    expect(
      Buffer.from(await file.arrayBuffer())
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-');
  } finally {
    await app.close();
  }
});

test('made while much comes in, it holds whole gatherings alone, and every file its database names', async () => {
  const bring = async (i: number): Promise<void> =>
    void (await steward.import({
      [`${i}.ris`]: `TY  - BOOK\nTI  - Ebb ${i}\nER  - \nTY  - BOOK\nTI  - Flood ${i}\nER  - \n`,
      [`${i}.txt`]: `notes ${i}`,
    }));
  let done = false;
  const busy = (async () => {
    for (let i = 0; !done; i += 1) await bring(i);
  })();
  await backUp(here(), to);
  done = true;
  await busy;
  await restore(to, there());
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const { rows: named } = await client.query<{ sha256: string }>(
    'select distinct sha256 from files where address is null',
  );
  const { rows: uneven } = await client.query(
    `select import_id from sources where record->>'title' ~ '^(Ebb|Flood)' group by import_id having count(*) <> 2`,
  );
  await client.end();
  expect(uneven).toEqual([]);
  expect(filesIn(data)).toEqual(expect.arrayContaining(named.map((n) => n.sha256)));
  for (const sha256 of filesIn(data))
    expect(
      createHash('sha256')
        .update(readFileSync(join(data, 'files', sha256.slice(0, 2), sha256)))
        .digest('hex'),
    ).toBe(sha256);
});

test('made again into the same folder, it copies only what is new', async () => {
  await backUp(here(), to);
  const first = filesIn(to);
  await steward.import({ 'more.ris': 'TY  - BOOK\nTI  - One more\nER  - \n' });
  await backUp(here(), to);
  expect(filesIn(to).length).toBe(first.length + 1);
});

test.each<[string, () => void, RegExp]>([
  ['a folder that holds none', () => rmSync(join(to, 'backup.json')), /There is no backup in/],
  [
    'one of which a file is missing',
    () => rmSync(join(to, 'files', filesIn(to)[0]!.slice(0, 2)), { recursive: true }),
    /is not whole: 1 of its \d+ files are missing/,
  ],
  [
    'one of which a file is damaged',
    () => writeFileSync(join(to, 'files', filesIn(to)[0]!.slice(0, 2), filesIn(to)[0]!), 'x'),
    /is damaged: files\/.. is not what it was|is damaged: files\/../,
  ],
  [
    'one over a library that is there',
    () => {
      mkdirSync(join(data, 'files'));
      cpSync(join(to, 'files'), join(data, 'files'), { recursive: true });
    },
    /holds a library already/,
  ],
])('restoring %s is refused, and nothing is written', async (_, spoil, says) => {
  await backUp(here(), to);
  spoil();
  await expect(restore(to, there())).rejects.toThrow(says);
  expect(Object.keys(await digests(url))).toEqual([]);
});

test('a folder with other things in it is not made a backup of', async () => {
  writeFileSync(join(to, 'thesis.docx'), 'mine');
  await expect(backUp(here(), to)).rejects.toThrow('holds other things than a backup');
});
