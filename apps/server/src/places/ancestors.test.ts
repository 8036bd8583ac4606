/** Which collection stands under which, kept true change by change. */
import { sql } from 'drizzle-orm';
import fc from 'fast-check';
import type { Changed } from '@pandecta/contract';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { transact } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { deriveAncestors } from './tree.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer({ alone: true });
});
afterAll(() => server.close());

const db = () => server.app.services.db;
const kept = async (me: Person): Promise<string[]> =>
  (
    await rows(
      db(),
      { pair: text() },
      sql`select collection_id || ' ' || ancestor_id as pair from collection_ancestors where workspace_id = ${me.workspace}`,
    )
  )
    .map((r) => r.pair)
    .sort();
const make = async (me: Person, name: string, parent?: string): Promise<string> =>
  (await me.at<{ id: string }>('POST', '/collections', { name, ...(parent && { parent }) })).id;
const place = (me: Person, collection: string, parent: string | null) =>
  me.call<Partial<Changed>>('POST', `/w/${me.workspace}/placements`, { collection, parent });

test('after any placing and removing it is what it would be if all were derived anew', async () => {
  const me = await server.person('steward');
  const ids: string[] = [];
  for (let i = 0; i < 6; i += 1) ids.push(await make(me, `Collection ${i}`));
  let placed = 0;
  const step = fc.tuple(fc.constantFrom('place', 'place', 'place', 'remove', 'undo'), fc.nat(5), fc.option(fc.nat(5)));
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 6 }), async (steps) => {
      const done: string[] = [];
      for (const [what, one, under] of steps) {
        // What cannot be is refused, and changes nothing.
        if (what === 'place') {
          const { body } = await place(me, ids[one]!, under === null ? null : ids[under]!);
          if (body.changeId) done.push(body.changeId);
        } else if (what === 'undo') {
          const last = done.pop();
          if (last) await me.call('POST', `/w/${me.workspace}/changes/${last}/undo`);
        } else {
          const { placements } = await me.at<{ placements: { id: string; collection: string }[] }>('GET', '/places');
          const its = placements.filter((p) => p.collection === ids[one]);
          // The last placement of a collection goes with the collection.
          if (its[1]) await me.at('DELETE', `/placements/${its[0]!.id}`);
        }
      }
      placed += done.length;
      const now = await kept(me);
      await transact(db(), (tx) => deriveAncestors(tx, me.workspace));
      expect(now).toEqual(await kept(me));
    }),
    { numRuns: 15 },
  );
  expect(placed).toBeGreaterThan(5);
});

test('collections that each stand twice below those before take no longer the more levels there are', async () => {
  const me = await server.person('steward');
  // 2 to the power of 24 ways lead to the last.
  let above = [await make(me, 'Top')];
  for (let level = 0; level < 24; level += 1) {
    const next: string[] = [];
    for (const side of ['left', 'right']) {
      const id = await make(me, `${side} ${level}`, above[0]);
      if (above[1]) await place(me, id, above[1]);
      next.push(id);
    }
    above = next;
  }
  const last = (await kept(me)).filter((pair) => pair.startsWith(above[0]!));
  expect(last).toHaveLength(1 + 23 * 2 + 1);
});
