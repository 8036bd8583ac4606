import fc from 'fast-check';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import type { Changed, CompareReply, PlacesReply } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let sources: string[];
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  me = await server.person('steward');
  await me.import({ 'three.ris': ['Silt', 'Ebb', 'Marsh'].map((t) => `TY  - BOOK\nTI  - ${t}\nER  - \n`).join('') });
  sources = (await me.ask('', '&sort=title')).rows.map((r) => r.id);
});

const make = async (name: string, parent?: string): Promise<string> =>
  (await me.at<Changed>('POST', '/collections', { name, ...(parent ? { parent } : {}) })).id!;
const file = (ids: string[], collection: string, present = true): Promise<Changed> =>
  me.at<Changed>('POST', '/filing', { ids, collections: [collection], present });
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

const sourcesIn = (collection: string): Promise<string[]> => me.titles('', `&sort=title&collection=${collection}`);
/** The collections of a level in the order they are shown in. */
async function inOrder(parent: string | null = null): Promise<string[]> {
  const { collections, placements } = await places();
  const at = (c: string): number => collections.findIndex((each) => each.id === c);
  return placements
    .filter((p) => p.parent === parent)
    .sort((a, b) => (a.rank ?? Infinity) - (b.rank ?? Infinity) || at(a.collection) - at(b.collection))
    .map((p) => collections[at(p.collection)]!.name);
}

test('collections are ordered by hand, moved to a place among others, and stand by their names again', async () => {
  const [ebb, flood, tide] = [await make('Ebb'), await make('Flood'), await make('Tide')];
  await me.at('POST', '/placements', { collection: tide, parent: null, movedFrom: await placementOf(tide), before: await placementOf(ebb) }); // prettier-ignore
  expect(await inOrder()).toEqual(['Tide', 'Ebb', 'Flood']);
  const { changeId, says } = await me.at<Changed>('POST', '/placements', {
    collection: tide,
    parent: null,
    movedFrom: await placementOf(tide),
    before: null,
  });
  expect([says, await inOrder()]).toEqual(['Put Tide in another place at the top', ['Ebb', 'Flood', 'Tide']]);
  await me.at('POST', `/changes/${changeId}/undo`);
  expect(await inOrder()).toEqual(['Tide', 'Ebb', 'Flood']);
  const below = await make('Below', flood);
  await me.at('POST', '/placements', { collection: ebb, parent: flood, movedFrom: await placementOf(ebb), before: await placementOf(below, flood) }); // prettier-ignore
  expect(await inOrder(flood)).toEqual(['Ebb', 'Below']);
  await me.at('POST', '/order', {});
  expect(await inOrder()).toEqual(['Flood', 'Tide']);
});

test('a collection says what it is for and until when; of two who write, the later is told', async () => {
  const law = await make('Law');
  await me.at('PATCH', `/collections/${law}`, { says: 'Who must close it', until: { day: '2027-03-01', what: 'the hearing' } }); // prettier-ignore
  expect((await places()).collections[0]).toMatchObject({
    says: 'Who must close it',
    until: { day: '2027-03-01', what: 'the hearing' },
  });
  await me.at('PATCH', `/collections/${law}`, { name: 'Duty' });
  const late = await me.call<{ code: string }>('PATCH', `/w/${me.workspace}/collections/${law}`, { name: 'Cases', seen: 'Law' }); // prettier-ignore
  expect([late.status, late.body.code]).toEqual([409, 'stale_edit']);
});

test('what a rule finds belongs to the collection and to those above it, in counts, questions and within other rules', async () => {
  const law = await make('Law');
  const ruled = await make('By rule', law);
  await file([sources[0]!], ruled);
  await me.at('PATCH', `/collections/${ruled}`, { rule: { q: 'title:silt' } });
  expect(await sourcesIn(ruled)).toEqual(['Ebb', 'Silt']);
  expect(await tree()).toEqual(['Law (2)', 'Law › By rule (2)']);
  expect(await me.titles('in:law', '&sort=title')).toEqual(['Ebb', 'Silt']);
  expect(await me.titles('-in:"Law › By rule"')).toEqual(['Marsh']);
  const outer = await make('Outer');
  await me.at('PATCH', `/collections/${outer}`, { rule: { collection: law } });
  expect(await sourcesIn(outer)).toEqual(['Ebb', 'Silt']);
  // A circle of rules asks for nothing more than it has.
  await me.at('PATCH', `/collections/${ruled}`, { rule: { q: 'title:silt or in:outer' } });
  expect(await sourcesIn(ruled)).toEqual(['Ebb', 'Silt']);
  const own = await me.call('PATCH', `/w/${me.workspace}/collections/${outer}`, { rule: { collection: outer } });
  expect(own.status).toBe(400);
  await me.at('PATCH', `/collections/${ruled}`, { rule: null });
  expect(await sourcesIn(ruled)).toEqual(['Ebb']);
});

test('several are filed in several at once; what is there already is not added twice, and the words say so', async () => {
  const [a, b] = [await make('A'), await make('B')];
  const filing = (body: object): Promise<Changed> => me.at<Changed>('POST', '/filing', { present: true, ...body });
  await filing({ ids: sources.slice(0, 1), collections: [a] });
  const both = await filing({ ids: sources, collections: [a, b] });
  expect(both.says).toBe('Filed 3 sources in A, B');
  expect([await sourcesIn(a), await sourcesIn(b)]).toEqual([
    ['Ebb', 'Marsh', 'Silt'],
    ['Ebb', 'Marsh', 'Silt'],
  ]);
  await file(sources.slice(0, 2), a, false);
  expect((await filing({ ids: sources, collections: [a] })).says).toBe('Filed 2 sources in A; 1 already there');
  const c = await make('C');
  const moved = await filing({ ids: sources.slice(0, 2), collections: [c], from: a });
  expect([moved.says, await sourcesIn(a), await sourcesIn(c)]).toEqual([
    'Moved 2 sources from A to C',
    ['Silt'],
    ['Ebb', 'Marsh'],
  ]);
  await me.at('POST', `/changes/${moved.changeId}/undo`);
  expect(await sourcesIn(a)).toEqual(['Ebb', 'Marsh', 'Silt']);
});

describe('a whole collection', () => {
  test('copied, holds the same with what stands below it, and the two are apart', async () => {
    const law = await make('Law');
    const cases = await make('Cases', law);
    await file([sources[0]!], cases);
    await me.at('PATCH', `/collections/${law}`, { says: 'Who must' });
    const { id } = await me.at<Changed>('POST', `/collections/${law}/copy`, {});
    expect(await tree()).toEqual(['Law (1)', 'Law (copy) (1)', 'Law (copy) › Cases (1)', 'Law › Cases (1)']);
    expect((await places()).collections.find((c) => c.id === id)!.says).toBe('Who must');
    await file([sources[1]!], cases);
    expect((await sourcesIn(id!)).length).toBe(1);
  });

  test('made part of another, leaves its sources and what stood below it there; undone, all is as it was', async () => {
    const [law, old] = [await make('Law'), await make('Old')];
    await make('Cases', old);
    await file(sources.slice(0, 2), old);
    await file(sources.slice(1), law);
    const before = await tree();
    const { says, changeId } = await me.at<Changed>('POST', `/collections/${law}/merge`, { others: [old] });
    expect([says, await tree()]).toEqual(['Merged Old into Law', ['Law (3)', 'Law › Cases (0)']]);
    await me.at('POST', `/changes/${changeId}/undo`);
    expect(await tree()).toEqual(before);
  });

  test('removed with its sources to the bin, says how many; undone, they are back in it', async () => {
    const law = await make('Law');
    await file(sources.slice(0, 2), law);
    const { says, changeId } = await me.at<Changed>('POST', `/collections/${law}/bin`, {});
    expect([says, await tree(), (await me.ask('')).total]).toEqual([
      'Removed the collection Law and moved its 2 sources to the bin',
      [],
      1,
    ]);
    await me.at('POST', `/changes/${changeId}/undo`);
    expect([await tree(), (await me.ask('')).total]).toEqual([['Law (2)'], 3]);
  });

  test('compared with others, each source is counted in one part', async () => {
    const [a, b, c] = [await make('A'), await make('B'), await make('C')];
    await file(sources.slice(0, 2), a);
    await file(sources.slice(1), b);
    await me.at('PATCH', `/collections/${c}`, { rule: { q: 'title:silt' } });
    const { parts } = await me.at<CompareReply>('GET', `/compare?of=${a}&of=${b}&of=${c}`);
    const named = parts.map((p) => [p.in.map((id) => ({ [a]: 'A', [b]: 'B', [c]: 'C' })[id]).join(''), p.count]);
    expect(Object.fromEntries(named)).toEqual({ A: 1, AB: 1, BC: 1 });
  });
});
