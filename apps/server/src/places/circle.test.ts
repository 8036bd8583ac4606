/** Whoever moves what at once, no collection and no folder comes to stand under itself; what an earlier version left is mended. */
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { PlacesReply, Vocabulary } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';
import { healTrees } from './heal.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => void (server = await startTestServer({ alone: true })));
beforeEach(async () => void (me = await server.person('steward')));
afterAll(() => server.close());

const make = async (name: string, parent?: string): Promise<string> =>
  (await me.at<{ id: string }>('POST', '/collections', { name, ...(parent && { parent }) })).id;
/** The names of all that can be reached from the top. */
async function reached(): Promise<string[]> {
  const { collections, placements } = await me.at<PlacesReply>('GET', '/places');
  const names = new Set<string>();
  const below = (parent: string | null): void => {
    for (const p of placements.filter((x) => x.parent === parent)) {
      const name = collections.find((c) => c.id === p.collection)?.name;
      if (name && !names.has(name)) {
        names.add(name);
        below(p.collection);
      }
    }
  };
  below(null);
  return [...names].sort();
}
const placementOf = async (collection: string): Promise<string> =>
  (await me.at<PlacesReply>('GET', '/places')).placements.find((p) => p.collection === collection)!.id;

test('of two that are moved under each other at once one stays where it was', async () => {
  for (let round = 0; round < 5; round += 1) {
    const [a, b] = [await make(`A${round}`), await make(`B${round}`)];
    const [pa, pb] = [await placementOf(a), await placementOf(b)];
    const move = (collection: string, parent: string, movedFrom: string): Promise<{ status: number }> =>
      me.call('POST', `/w/${me.workspace}/placements`, { collection, parent, movedFrom });
    const both = await Promise.all([move(a, b, pa), move(b, a, pb)]);
    expect(both.map((r) => r.status).sort()).toEqual([200, 409]);
  }
  expect(await reached()).toHaveLength(10);
});

test('a ring of three, moved at once, stays open', async () => {
  const three = [await make('One'), await make('Two'), await make('Three')];
  const from = await Promise.all(three.map(placementOf));
  await Promise.all(
    three.map((collection, i) =>
      me.call('POST', `/w/${me.workspace}/placements`, { collection, parent: three[(i + 1) % 3], movedFrom: from[i] }),
    ),
  );
  expect(await reached()).toEqual(['One', 'Three', 'Two']);
});

test('of two terms that are put under each other at once one stays where it was', async () => {
  const ids: string[] = [];
  const source = (await me.at<{ id: string }>('POST', '/sources', { record: { type: 'book', title: 'Silt' } })).id;
  for (const name of ['mud', 'silt']) await me.at('POST', '/tagging', { ids: [source], name, present: true });
  const terms = async (): Promise<Vocabulary['terms']> => (await me.at<Vocabulary>('GET', '/vocabulary')).terms;
  ids.push(...(await terms()).map((t) => t.id));
  const put = (tag: string, broader: string): Promise<{ status: number }> =>
    me.call('PATCH', `/w/${me.workspace}/vocabulary/${tag}`, { broader });
  const both = await Promise.all([put(ids[0]!, ids[1]!), put(ids[1]!, ids[0]!)]);
  expect(both.filter((r) => r.status === 200)).toHaveLength(1);
  expect((await terms()).filter((t) => t.broader)).toHaveLength(1);
});

test('a move that is taken back after the other was moved under it is refused, and nothing vanishes', async () => {
  const [outer, inner] = [await make('Outer'), await make('Inner')];
  const { changeId } = await me.at<{ changeId: string }>('POST', '/placements', {
    collection: inner,
    parent: null,
    movedFrom: await placementOf(inner),
  });
  const within = await make('Within', inner);
  const out = await me.at<{ changeId: string }>('POST', '/placements', {
    collection: within,
    parent: null,
    movedFrom: await placementOf(within),
  });
  await me.at('POST', '/placements', { collection: inner, parent: within, movedFrom: await placementOf(inner) });
  expect((await me.call('POST', `/w/${me.workspace}/changes/${out.changeId}/undo`)).status).toBe(409);
  expect(changeId).toBeDefined();
  expect(await reached()).toEqual(['Inner', 'Outer', 'Within']);
  expect(outer).toBeDefined();
});

test('of two folders that are moved into each other at once one stays where it was', async () => {
  const folder = async (name: string): Promise<string> =>
    (await me.at<{ id: string }>('POST', '/folders', { name, shared: true })).id;
  const [a, b] = [await folder('A'), await folder('B')];
  const into = (id: string, parent: string): Promise<{ status: number }> =>
    me.call('PATCH', `/w/${me.workspace}/folders/${id}`, { parent });
  const both = await Promise.all([into(a, b), into(b, a)]);
  expect(both.map((r) => r.status).sort()).toEqual([200, 409]);
});

test('collections that stand in a circle are there again after a start, with what is filed in them', async () => {
  const [a, b, c] = [await make('Lost'), await make('Lost too'), await make('Below')];
  const { pool } = server.app.services.database;
  await me.import({ 'a.ris': 'TY  - BOOK\nTI  - Gauge\nER  - \n' }, c);
  for (const [one, up] of [
    [a, b],
    [b, a],
    [c, b],
  ])
    await pool.query('update placements set parent_id = $1 where collection_id = $2', [up, one]);
  expect(await reached()).toEqual([]);
  expect(await healTrees(server.app.services.db)).toBe(1);
  expect(await reached()).toEqual(['Below', 'Lost', 'Lost too']);
  expect((await me.ask('', `&collection=${a}`)).total + (await me.ask('', `&collection=${b}`)).total).toBeGreaterThan(
    0,
  );
  expect(await healTrees(server.app.services.db)).toBe(0);
});
