import fc from 'fast-check';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import type { Changed, PlacesReply } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let sources: string[];
beforeAll(async () => {
  server = await startTestServer();
}, 60_000);
afterAll(() => server.close());
beforeEach(async () => {
  me = await server.person('steward');
  await me.import({ 'three.ris': ['Silt', 'Ebb', 'Marsh'].map((t) => `TY  - BOOK\nTI  - ${t}\nER  - \n`).join('') });
  sources = (await me.ask('', '&sort=title')).rows.map((r) => r.id);
});

const make = async (name: string, parent?: string): Promise<string> =>
  (await me.at<Changed>('POST', '/collections', { name, ...(parent ? { parent } : {}) })).id!;
const file = (ids: string[], collection: string, present = true): Promise<Changed> =>
  me.at<Changed>('POST', '/filing', { ids, collection, present });
const places = (): Promise<PlacesReply> => me.at<PlacesReply>('GET', '/places');
const placementOf = async (collection: string, parent: string | null = null): Promise<string> =>
  (await places()).placements.find((p) => p.collection === collection && (p.parent ?? null) === parent)!.id;

/** The tree as lines: "Law (2)", "Law › Cases (1)". */
async function tree(): Promise<string[]> {
  const { collections, placements } = await places();
  const under = (parent: string | null, path: string): string[] =>
    placements
      .filter((p) => (p.parent ?? null) === parent)
      .flatMap((p) => {
        const c = collections.find((each) => each.id === p.collection)!;
        return [`${path}${c.name} (${c.count})`, ...under(p.collection, `${path}${c.name} › `)];
      })
      .sort();
  return under(null, '');
}

test('a source counts once in each collection above it, and “in no collection” goes down to zero', async () => {
  const law = await make('Law');
  const cases = await make('Cases', law);
  expect((await places()).loose).toBe(3);
  await file(sources.slice(0, 2), cases);
  await file(sources.slice(0, 1), law);
  expect([await tree(), (await places()).loose]).toEqual([['Law (2)', 'Law › Cases (2)'], 1]);
  await file(sources, law);
  expect([await tree(), (await places()).loose]).toEqual([['Law (3)', 'Law › Cases (2)'], 0]);
  expect(await me.titles('', '&scope=loose')).toEqual([]);
  await me.at('POST', '/presence', { ids: [sources[0]], to: 'bin' });
  expect(await tree()).toEqual(['Law (2)', 'Law › Cases (1)']);
});

describe('a placement', () => {
  test('further ones show the same collection; the words say how many are left', async () => {
    const law = await make('Law');
    const chapter = await make('Chapter 2');
    const cases = await make('Cases', law);
    await file([sources[0]!], cases);
    const placed = await me.at<Changed>('POST', '/placements', { collection: cases, parent: chapter });
    expect(placed.says).toBe('Placed Cases under Chapter 2 as well');
    expect(await tree()).toEqual(['Chapter 2 (1)', 'Chapter 2 › Cases (1)', 'Law (1)', 'Law › Cases (1)']);
    const removed = await me.at<Changed>('DELETE', `/placements/${await placementOf(cases, law)}`);
    expect(removed.says).toBe('Removed Cases from here; it still stands in 1 other place');
    expect(await tree()).toEqual(['Chapter 2 (1)', 'Chapter 2 › Cases (1)', 'Law (0)']);
  });

  test('moved, leaves where it was; put where it stands already, changes nothing', async () => {
    const law = await make('Law');
    const cases = await make('Cases');
    const moved = await me.at<Changed>('POST', '/placements', {
      collection: cases,
      parent: law,
      movedFrom: await placementOf(cases),
    });
    expect([moved.says, await tree()]).toEqual(['Moved Cases under Law', ['Law (0)', 'Law › Cases (0)']]);
    const again = await me.at<Changed>('POST', '/placements', { collection: cases, parent: law });
    expect(again).toMatchObject({ changeId: null, says: 'Cases already stands there' });
  });

  test('the last one removed, the collection goes with what stands below it; the sources stay, and undo brings all back', async () => {
    const law = await make('Law');
    const cases = await make('Cases', law);
    await file(sources.slice(0, 2), cases);
    const { says, changeId } = await me.at<Changed>('DELETE', `/placements/${await placementOf(law)}`);
    expect(says).toBe('Removed the collection Law and the one below it; its 2 sources stay in the workspace');
    expect([await tree(), (await places()).loose, (await me.ask('')).total]).toEqual([[], 3, 3]);
    await me.at('POST', `/changes/${changeId}/undo`);
    expect([await tree(), (await places()).loose]).toEqual([['Law (2)', 'Law › Cases (2)'], 1]);
  });
});

test('however collections are placed, none ever stands under itself, and every count is of different sources', async () => {
  const names = ['A', 'B', 'C', 'D'];
  const ids = await Promise.all(names.map((n) => make(n)));
  await Promise.all(ids.map((id, i) => file([sources[i % 3]!], id)));
  const one = fc.constantFrom(...ids);
  await fc.assert(
    fc.asyncProperty(fc.array(fc.tuple(one, one), { minLength: 1, maxLength: 6 }), async (pairs) => {
      for (const [collection, parent] of pairs) {
        const reply = await me.call<{ code?: string }>('POST', `/w/${me.workspace}/placements`, { collection, parent });
        expect([200, 409]).toContain(reply.status);
      }
      // The tree ends: a circle would make it endless.
      for (const text of await tree()) expect(Number(/\((\d+)\)$/.exec(text)![1])).toBeLessThanOrEqual(3);
    }),
    { numRuns: 8 },
  );
});
