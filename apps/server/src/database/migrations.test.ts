import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { HistoryReply } from '@pandecta/contract';
import { undo } from '../changes/service.ts';
import { number, rows, text } from './read.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

const FOLDER = fileURLToPath(new URL('../../migrations', import.meta.url));
const OLD = {
  workspace: uuidv7(),
  live: uuidv7(),
  binned: uuidv7(),
  tag: uuidv7(),
  member: uuidv7(),
  reading: uuidv7(),
  tagging: uuidv7(),
  collection: uuidv7(),
  import: uuidv7(),
};

/** A database as the first release left it, with a source in the list and one in the bin. */
async function asFirstReleased(url: string): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'pandecta-migrations-'));
  cpSync(FOLDER, folder, { recursive: true });
  const journal = join(folder, 'meta/_journal.json');
  const all = JSON.parse(readFileSync(journal, 'utf8')) as { entries: unknown[] };
  writeFileSync(journal, JSON.stringify({ ...all, entries: all.entries.slice(0, 1) }));
  const pool = new pg.Pool({ connectionString: url, max: 1 });
  await migrate(drizzle(pool), { migrationsFolder: folder });
  rmSync(folder, { recursive: true });
  const run = (text: string, values: unknown[]): Promise<unknown> => pool.query(text, values);
  await run(`insert into workspaces (id, name) values ($1, 'Old')`, [OLD.workspace]);
  await run(`insert into tags (workspace_id, id, name, subject) values ($1, $2, 'used', false)`, [
    OLD.workspace,
    OLD.tag,
  ]);
  for (const [id, presence, title, sign] of [
    [OLD.live, 'live', 'Sediment in tidal marshes', ':'],
    [OLD.binned, 'bin', 'Closure of the marsh gate', '!'],
  ] as const) {
    await run(`insert into sources (workspace_id, id, record, presence, added_by) values ($1, $2, $3, $4, $1)`, [
      OLD.workspace,
      id,
      { type: 'book', title },
      presence,
    ]);
    await run(
      `insert into source_sort (workspace_id, source_id, presence, title, author, container, kind, year, added, changed)
       values ($1, $2, $3, $4, '', '', 'Book', null, now(), now())`,
      [OLD.workspace, id, presence, title],
    );
    await run(`insert into source_text (workspace_id, source_id, vector) values ($1, $2, $3::tsvector)`, [
      OLD.workspace,
      id,
      `'1${sign}marsh':1A '1t${sign}marsh':1A`,
    ]);
    await run(`insert into source_tags (workspace_id, source_id, tag_id) values ($1, $2, $3)`, [
      OLD.workspace,
      id,
      OLD.tag,
    ]);
  }
  await run(
    `with f as (insert into facets (workspace_id, type, key) values ($1, 'tag', $2) returning id)
     insert into source_facets (workspace_id, source_id, ids) select $1, s, array[f.id] from f, unnest($3::uuid[]) s`,
    [OLD.workspace, OLD.tag, [OLD.live, OLD.binned]],
  );
  // Sources had one reading state for everybody, and changes were noted by source alone.
  await run(`insert into users (id, email, name, password_hash) values ($1, 'old@sallow.example', 'Old Member', '')`, [
    OLD.member,
  ]);
  await run(`insert into members (workspace_id, user_id, role) values ($1, $2, 'steward')`, [
    OLD.workspace,
    OLD.member,
  ]);
  await run(`update sources set reading = 'read' where id = $1`, [OLD.live]);
  await run(
    `with f as (insert into facets (workspace_id, type, key) values ($1, 'reading', 'read') returning id)
     update source_facets set ids = ids || f.id from f where source_id = $2`,
    [OLD.workspace, OLD.live],
  );
  const states = { [OLD.live]: { before: null, after: 'read' } };
  const tagging = { do: 'tag', tag: OLD.tag, name: 'used', subject: false, sources: [OLD.live], present: true };
  for (const [id, change] of [
    [OLD.reading, { do: 'reading', states }],
    [OLD.tagging, { do: 'all', says: 'Tagged', changes: [tagging] }],
  ] as const) {
    await run(`insert into changes (workspace_id, id, actor_id, change, says) values ($1, $2, $3, $4, 'Old change')`, [
      OLD.workspace,
      id,
      OLD.member,
      change,
    ]);
    await run(`insert into change_sources (workspace_id, source_id, change_id) values ($1, $2, $3)`, [
      OLD.workspace,
      OLD.live,
      id,
    ]);
  }
  await run(`insert into collections (workspace_id, id, name) values ($1, $2, 'Old letters')`, [
    OLD.workspace,
    OLD.collection,
  ]);
  await run(
    `insert into imports (workspace_id, id, job_id, title, collection_id, inputs, made_by) values ($1, $2, $2, 'old.ris', $3, '[]', $4)`,
    [OLD.workspace, OLD.import, OLD.collection, OLD.member],
  );
  await pool.end();
}

let server: TestServer;
let me: Person;
beforeAll(async () => {
  server = await startTestServer({ prepare: asFirstReleased });
  me = await server.person('steward', OLD.workspace);
});
afterAll(() => server.close());

test('a database of the first release opens with all it held: listed, found, narrowed, in the bin', async () => {
  expect(await me.titles('')).toEqual(['Sediment in tidal marshes']);
  expect(await me.titles('', '&scope=bin')).toEqual(['Closure of the marsh gate']);
  expect(await me.titles('tag:used')).toEqual(['Sediment in tidal marshes']);
  await server.settle();
  expect(await me.titles('title:marsh')).toEqual(['Sediment in tidal marshes']);
  expect(await me.titles('tidal')).toEqual(['Sediment in tidal marshes']);
  expect(await me.titles('gate', '&scope=bin')).toEqual(['Closure of the marsh gate']);
});

test('and gives new sources numbers after those of the old', async () => {
  await me.import({ 'new.ris': 'TY  - BOOK\nTI  - A later survey of reeds\nER  - \n' });
  const found = await rows(
    server.app.services.db,
    { number: number },
    sql`select number from source_sort where workspace_id = ${OLD.workspace} order by 1`,
  );
  expect(found.map((f) => f.number)).toEqual([0, 1, 2]);
  expect(await me.titles('')).toEqual(['A later survey of reeds', 'Sediment in tidal marshes']);
});

test('the reading state everyone shared is each member’s own, is narrowed by, and its change is taken back', async () => {
  const { services } = server.app;
  const old = { workspaceId: OLD.workspace, userId: OLD.member, role: 'steward' as const };
  const states = (): Promise<unknown[]> =>
    rows(services.db, {}, sql`select source_id as id, user_id as member, state from source_reading`);
  expect(await states()).toEqual([{ id: OLD.live, member: OLD.member, state: 'read' }]);
  const facets = await rows(
    services.db,
    { type: text() },
    sql`select f.type from source_facets sf join facets f on f.id = any(sf.ids) where sf.source_id = ${OLD.live} and f.type like 'reading%'`,
  );
  expect(facets).toEqual([{ type: `reading ${OLD.member}` }]);
  expect(await undo(services, old, OLD.reading)).toMatchObject({ says: 'Undone: Old change' });
  expect(await states()).toEqual([]);
});

test('the history of sources and of what else was changed goes on', async () => {
  const { entries } = await me.at<HistoryReply>('GET', `/sources/${OLD.live}/history`);
  expect(entries.map((e) => e.says)).toContain('Old change');
  const touched = await rows(
    server.app.services.db,
    {},
    sql`select kind, subject_id as id from change_subjects where change_id = ${OLD.tagging} order by 1`,
  );
  expect(touched).toEqual([
    { kind: 'source', id: OLD.live },
    { kind: 'tag', id: OLD.tag },
  ]);
});

test('an import keeps where it went, now that it may go to several places', async () => {
  const [old] = await rows(
    server.app.services.db,
    { way: text(), collections: text() },
    sql`select way, destination->>'collections' as collections from imports where id = ${OLD.import}`,
  );
  expect(old).toEqual({ way: 'files', collections: JSON.stringify([OLD.collection]) });
});
