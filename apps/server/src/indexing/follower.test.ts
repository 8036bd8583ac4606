/** What follows the writes takes its share of all, and of one workspace alone where somebody waits for it. */
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Db } from '../database/connect.ts';
import { number, rows, text } from '../database/read.ts';
import { startTestServer, type TestServer } from '../testing/server.ts';
import { Followers } from './follower.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer({ alone: true });
  // The server's own would take what the tests put into the queue.
  await server.app.services.followers.stop();
});
afterAll(() => server.close());

/** Puts three sources into the queue; gives their ids in its order. */
async function queue(workspace: string): Promise<string[]> {
  const ids = [uuidv7(), uuidv7(), uuidv7()].sort();
  for (const id of ids)
    await server.app.services.db.execute(
      sql`insert into compare_queue (workspace_id, source_id) values (${workspace}, ${id})`,
    );
  return ids;
}

test('what failed stands aside, and not what another server is just doing', async () => {
  const { db } = server.app.services;
  const { workspace } = await server.person('contributor');
  const [first, second] = await queue(workspace);
  const errors: unknown[] = [];
  const work = async (_: unknown, __: string, [id]: string[]): Promise<void> => {
    if (id === second) throw new Error('no words can be made of it');
  };
  const followers = new Followers(db, (error) => errors.push(error), [
    { queue: 'compare_queue', share: 1, news: 'pair', work },
  ]);
  // Another server has the first in hand all the while.
  await db.transaction(async (other) => {
    await other.execute(sql`select 1 from compare_queue where source_id = ${first} for update`);
    await followers.settle();
  });
  expect(errors).toEqual([new Error('no words can be made of it')]);
  const left = await rows(db, { id: text(), failures: number }, sql`select source_id as id, failures from compare_queue order by 1`); // prettier-ignore
  expect(left).toEqual([
    { id: first, failures: 0 },
    { id: second, failures: 1 },
  ]);
  await db.execute(sql`delete from compare_queue`);
});

test('a share the database gave up for another’s sake is done again, and nothing stands aside', async () => {
  const { db } = server.app.services;
  const { workspace } = await server.person('contributor');
  await queue(workspace);
  let tries = 0;
  const work = async (tx: Db): Promise<void> => {
    tries += 1;
    if (tries === 1)
      await tx.execute(sql`do $$ begin raise exception 'deadlock detected' using errcode = '40P01'; end $$`);
  };
  const followers = new Followers(db, (error) => expect(error).toBeUndefined(), [
    { queue: 'compare_queue', share: 3, news: 'pair', work },
  ]);
  await followers.settle();
  expect(tries).toBe(2);
  expect(await rows(db, { id: text() }, sql`select source_id as id from compare_queue`)).toEqual([]);
});

test('who waits for one workspace does not wait for what others have in the queue', async () => {
  const { db } = server.app.services;
  const [first, second] = [await server.person('contributor'), await server.person('contributor')];
  const theirs = await queue(first.workspace);
  const own = await queue(second.workspace);
  const done: [string, string[]][] = [];
  const followers = new Followers(db, (error) => expect(error).toBeUndefined(), [
    { queue: 'compare_queue', share: 2, news: 'pair', work: async (_, ...of) => void done.push(of) },
  ]);
  await followers.catchUp('compare_queue', second.workspace);
  expect(done).toEqual([
    [second.workspace, own.slice(0, 2)],
    [second.workspace, own.slice(2)],
  ]);
  const left = (): Promise<unknown[]> =>
    rows(db, { id: text() }, sql`select source_id as id from compare_queue order by 1`);
  expect(await left()).toEqual(theirs.map((id) => ({ id })));
  await followers.settle();
  expect(await left()).toEqual([]);
});
