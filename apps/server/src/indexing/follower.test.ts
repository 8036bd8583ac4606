/** What follows the writes takes its share of all, and of one workspace alone where somebody waits for it. */
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { rows, text } from '../database/read.ts';
import { startTestServer, type TestServer } from '../testing/server.ts';
import { Followers } from './follower.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
  // The server's own would take what the tests put into the queue.
  await server.app.services.followers.stop();
});
afterAll(() => server.close());

test('who waits for one workspace does not wait for what others have in the queue', async () => {
  const { db } = server.app.services;
  const [first, second] = [await server.person('contributor'), await server.person('contributor')];
  const queue = async (workspace: string): Promise<string[]> => {
    const ids = [uuidv7(), uuidv7(), uuidv7()].sort();
    for (const id of ids)
      await db.execute(sql`insert into compare_queue (workspace_id, source_id) values (${workspace}, ${id})`);
    return ids;
  };
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
