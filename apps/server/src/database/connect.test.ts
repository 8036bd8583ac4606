import { sql } from 'drizzle-orm';
import type pg from 'pg';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { startTestServer, type TestServer } from '../testing/server.ts';
import { connect, isUnavailable, snapshot, transact, type Db } from './connect.ts';
import { number, one } from './read.ts';

let server: TestServer;
let db: Db;
beforeAll(async () => {
  server = await startTestServer({ alone: true });
  ({ db } = server.app.services);
  await db.execute(sql`create table tallies (name text primary key, n int not null)`);
  await db.execute(sql`insert into tallies values ('left', 0), ('right', 0)`);
});
afterAll(() => server.close());

const add = (tx: Db, name: string): Promise<unknown> =>
  tx.execute(sql`update tallies set n = n + 1 where name = ${name}`);
const sum = async (): Promise<number> => (await one(db, { n: number }, sql`select sum(n)::int as n from tallies`))!.n;

test('of two writes that wait for each other one is done again, and both stand once', async () => {
  let tries = 0;
  let arrived = 0;
  let open!: () => void;
  const both = new Promise<void>((resolve) => (open = resolve));
  const cross = (first: string, second: string): Promise<unknown> =>
    transact(db, async (tx) => {
      tries += 1;
      await add(tx, first);
      // Each holds its first row before either reaches for the other's.
      if ((arrived += 1) === 2) open();
      await both;
      await add(tx, second);
    });
  await Promise.all([cross('left', 'right'), cross('right', 'left')]);
  expect([tries, await sum()]).toEqual([3, 4]);
});

test('what fails for another reason is done once, and leaves nothing', async () => {
  const before = await sum();
  let tries = 0;
  const failing = transact(db, async (tx) => {
    tries += 1;
    await add(tx, 'left');
    throw new Error('out of ink');
  });
  await expect(failing).rejects.toThrow('out of ink');
  expect([tries, await sum()]).toEqual([1, before]);
});

test('a connection cut before a transaction began is given back all the same, so that the next one has it', async () => {
  const { config, database } = server.app.services;
  const narrow = connect(config.databaseUrl, 1);
  const give = narrow.pool.connect as () => Promise<pg.PoolClient & { processID: number }>;
  narrow.pool.connect = (async () => {
    const client = await give.call(narrow.pool);
    const ended = new Promise((resolve) => client.once('end', resolve));
    await database.pool.query('select pg_terminate_backend($1)', [client.processID]);
    await ended;
    return client;
  }) as never;
  for (const way of [transact, snapshot]) {
    await expect(way(narrow.db, (tx) => tx.execute(sql`select 1`))).rejects.toSatisfy(isUnavailable);
    expect([narrow.pool.totalCount, narrow.pool.waitingCount]).toEqual([0, 0]);
  }
  narrow.pool.connect = give as never;
  expect((await transact(narrow.db, (tx) => tx.execute(sql`select 1 as n`))).rows).toEqual([{ n: 1 }]);
  await narrow.close();
});
