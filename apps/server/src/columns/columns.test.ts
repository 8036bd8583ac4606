import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, expect, test } from 'vitest';
import fc from 'fast-check';
import type { NarrowReply, SourcePage } from '@pandecta/contract';
import { number, one, rows } from '../database/read.ts';
import { purge } from '../sources/purge.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';
import { prefixOf } from '../database/lexemes.ts';
import { wordSet } from './load.ts';
import { ColumnsService } from './service.ts';
import type { ColumnsAnswer } from '../workers/columns.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer({ alone: true });
});
afterAll(() => server.close());

const ris = (titles: string[]): string =>
  titles.map((t, i) => `TY  - BOOK\nTI  - ${t}\nPY  - ${1900 + i}\nER  - \n`).join('');

async function withSources(count: number): Promise<{ me: Person; ids: string[] }> {
  const me = await server.person('steward');
  await me.import({
    'some.ris': ris(Array.from({ length: count }, (_, i) => `Gauge reading number ${String.fromCharCode(97 + i)}`)),
  });
  await server.settle();
  return { me, ids: (await me.ask('', '&sort=title')).rows.map((r) => r.id) };
}

/** Everything columns can tell of a workspace, in one answer. */
async function all(columns: ColumnsService, workspace: string): Promise<ColumnsAnswer[]> {
  return Promise.all(
    (['live', 'bin'] as const).map((presence) =>
      columns.ask(workspace, {
        presence,
        condition: { is: 'all' },
        sets: [],
        page: {
          sort: [
            { key: 'title', descending: false },
            { key: 'year', descending: true },
          ],
          lead: [],
          from: 0,
          count: 100,
        },
        narrow: { most: { kind: 50, tag: 50, reading: 50, presence: 50 }, years: { is: 'all' } },
      }),
    ),
  );
}

/** What two words find, and what is found by title and by kind: what the thread keeps of earlier questions. */
async function kept(columns: ColumnsService, workspace: string, number: number): Promise<ColumnsAnswer[]> {
  const lead = prefixOf(number, 'title');
  return Promise.all(
    ['alder', 'reading'].map((stem) =>
      columns.ask(workspace, {
        presence: 'live',
        condition: { is: 'set', set: 0 },
        sets: [wordSet('fields', `'${lead}${stem}'`)],
        page: {
          sort: [
            { key: 'kind', descending: false },
            { key: 'title', descending: true },
          ],
          lead: [],
          from: 0,
          count: 9,
        },
      }),
    ),
  );
}

const step = fc.oneof(
  fc.record({
    do: fc.constant('tag' as const),
    at: fc.nat(5),
    name: fc.constantFrom('used', 'adverse'),
    on: fc.boolean(),
  }),
  fc.record({ do: fc.constant('bin' as const), at: fc.nat(5), on: fc.boolean() }),
  fc.record({ do: fc.constant('title' as const), at: fc.nat(5), title: fc.constantFrom('Alder', 'Zostera', 'Marram') }),
  fc.record({ do: fc.constant('undo' as const) }),
);

test('kept fresh through any writes, columns tell what columns read anew tell', async () => {
  const { me, ids } = await withSources(6);
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 6 }), async (steps) => {
      const { columns, db } = server.app.services;
      const call = (method: string, path: string, body: object): Promise<unknown> =>
        me.call(method, `/w/${me.workspace}${path}`, body);
      const standing = await one(db, { number }, sql`select number from workspaces where id = ${me.workspace}`);
      const told = async (by: ColumnsService): Promise<ColumnsAnswer[]> => [
        ...(await all(by, me.workspace)),
        ...(await kept(by, me.workspace, standing!.number)),
      ];
      await told(columns);
      for (const s of steps) {
        if (s.do === 'tag') await call('POST', '/tagging', { ids: [ids[s.at]], name: s.name, present: s.on });
        if (s.do === 'bin') await call('POST', '/presence', { ids: [ids[s.at]], to: s.on ? 'bin' : 'live' });
        if (s.do === 'title') await call('PATCH', `/sources/${ids[s.at]}`, { fields: { title: s.title } });
        if (s.do === 'undo') await call('POST', '/undo', {});
        await server.settle();
        await told(columns);
      }
      const fresh = new ColumnsService(db, process.env.PANDECTA_TASKS);
      try {
        expect(await told(columns)).toEqual(await told(fresh));
      } finally {
        await fresh.close();
      }
    }),
    { numRuns: 8 },
  );
});

test('words and orders asked for before know of what was written since', async () => {
  const { me, ids } = await withSources(4);
  const titled = (id: string, title: string): Promise<unknown> =>
    me.at('PATCH', `/sources/${id}`, { fields: { title } });
  const list = (): Promise<string[]> => me.titles('title:reading', '&sort=title');
  expect((await list()).length).toBe(4);
  await titled(ids[3]!, 'A reading of the tide');
  await titled(ids[0]!, 'Marram');
  await titled(ids[2]!, 'An unread reading');
  await server.settle();
  expect((await me.ask('title:reading', '&sort=title')).rows.map((r) => r.id)).toEqual([ids[1], ids[3], ids[2]]);
  expect((await me.ask('', '&sort=-title')).rows.map((r) => r.id)).toEqual([ids[2], ids[3], ids[0], ids[1]]);
});

test('every answer after a write knows of it, however many write at once', async () => {
  const { me, ids } = await withSources(12);
  await Promise.all(
    ids.map(async (id) => {
      await me.at('POST', '/tagging', { ids: [id], name: 'counted', present: true });
      expect((await me.at<SourcePage>('GET', '/sources?q=tag:counted')).rows.map((r) => r.id)).toContain(id);
    }),
  );
  const narrow = await me.at<NarrowReply>('GET', '/narrow');
  expect(narrow.facets.find((f) => f.type === 'tag')!.values).toMatchObject([{ name: 'counted', count: 12 }]);
});

test('two servers over one database each know what the other wrote', async () => {
  const { me, ids } = await withSources(3);
  const other = new ColumnsService(server.app.services.db, process.env.PANDECTA_TASKS);
  try {
    const total = async (): Promise<number> => (await all(other, me.workspace))[0]!.total;
    expect(await total()).toBe(3);
    await me.at('POST', '/presence', { ids: [ids[0]], to: 'bin' });
    expect(await total()).toBe(2);
  } finally {
    await other.close();
  }
});

test('when the notes of what changed are gone, all is read anew', async () => {
  const { me, ids } = await withSources(3);
  expect((await me.ask('')).total).toBe(3);
  await me.at('POST', '/presence', { ids: [ids[1]], to: 'bin' });
  await server.app.services.db.execute(sql`delete from derivations where workspace_id = ${me.workspace}`);
  await me.at('POST', '/tagging', { ids: [ids[0]], name: 'late', present: true });
  expect((await me.ask('')).total).toBe(2);
});

test('what left the bin for good is in neither list', async () => {
  const { me, ids } = await withSources(2);
  await me.at('POST', '/presence', { ids: [ids[0]], to: 'bin' });
  expect((await me.ask('', '&scope=bin')).total).toBe(1);
  const { db, storage } = server.app.services;
  await db.execute(sql`update sources set changed_at = now() - interval '31 days' where id = ${ids[0]}`);
  await purge(db, storage);
  expect((await me.ask('', '&scope=bin')).total).toBe(0);
  expect((await me.ask('')).total).toBe(1);
  expect(await rows(db, {}, sql`select 1 from source_text where source_id = ${ids[0]}`)).toEqual([]);
});
