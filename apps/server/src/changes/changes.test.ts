import { sql } from 'drizzle-orm';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Changed, HistoryReply, PlacesReply, Problem, SourceDetail } from '@pandecta/contract';
import { apply, emptyLibrary, invert, type Change, type Library, type SourceRecord } from '@pandecta/core/source';
import { rows } from '../database/connect.ts';
import { purge } from '../sources/purge.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';
import { commit, undo } from './service.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('contributor');
});
afterAll(() => server.close());

async function add(record: Record<string, unknown>): Promise<string> {
  return (await me.at<Changed>('POST', '/sources', { record: { type: 'book', ...record } })).id!;
}

describe('editing', () => {
  test('a field is changed, shown in the history, and undone', async () => {
    const id = await add({ title: 'Before' });
    await me.at('PATCH', `/sources/${id}`, { fields: { title: 'After', publisher: 'Quillback Press' } });
    const { entries } = await me.at<HistoryReply>('GET', `/sources/${id}/history`);
    expect(entries[0]).toMatchObject({
      says: 'Changed title and publisher',
      by: 'A contributor',
      change: { fields: { title: { before: 'Before', after: 'After' } } },
    });
    expect(await me.at('POST', '/undo')).toMatchObject({ says: 'Undone: Changed title and publisher' });
    expect((await me.at<SourceDetail>('GET', `/sources/${id}`)).record).toEqual({ type: 'book', title: 'Before' });
  });

  test('an edit made on an older state is refused only where the same field changed', async () => {
    const id = await add({ title: 'One' });
    await me.at('PATCH', `/sources/${id}`, { fields: { title: 'Two' }, version: 1 });
    const other = await server.person('contributor', me.workspace);
    const stale = await other.call<Problem>('PATCH', `/w/${me.workspace}/sources/${id}`, {
      fields: { title: 'Three' },
      version: 1,
    });
    expect([stale.status, stale.body.code]).toEqual([409, 'stale_edit']);
    await other.at('PATCH', `/sources/${id}`, { fields: { note: 'mine' }, version: 1 });
    expect((await me.at<SourceDetail>('GET', `/sources/${id}`)).record).toMatchObject({ title: 'Two', note: 'mine' });
  });

  test('an undo that would overwrite what someone else did since is refused and says why', async () => {
    const id = await add({ title: 'A' });
    const { changeId } = await me.at<Changed>('PATCH', `/sources/${id}`, { fields: { title: 'B' } });
    const other = await server.person('contributor', me.workspace);
    await other.at('PATCH', `/sources/${id}`, { fields: { title: 'C' } });
    const reply = await me.call<Problem>('POST', `/w/${me.workspace}/changes/${changeId}/undo`);
    expect(reply.body).toMatchObject({
      code: 'undo_conflict',
      detail: expect.stringContaining('title changed since then') as string,
    });
  });

  test('a value of the wrong shape is refused', async () => {
    const id = await add({ title: 'A' });
    const reply = await me.call<Problem>('PATCH', `/w/${me.workspace}/sources/${id}`, {
      fields: { author: 'not a list' },
    });
    expect(reply.body.detail).toContain('Author cannot hold this value');
  });
});

describe('collections, bin and reading', () => {
  test('removing from a collection says that the source stays', async () => {
    const id = await add({ title: 'Filed twice' });
    const [a, b] = [
      await me.at<Changed>('POST', '/collections', { name: 'A' }),
      await me.at<Changed>('POST', '/collections', { name: 'B' }),
    ];
    for (const c of [a, b]) await me.at('POST', '/filing', { ids: [id], collection: c.id, present: true });
    expect((await me.at<Changed>('POST', '/filing', { ids: [id], collection: a.id, present: false })).says).toBe(
      'Removed 1 source from A; still in 1 other place',
    );
    expect((await me.at<Changed>('POST', '/filing', { ids: [id], collection: b.id, present: false })).says).toBe(
      'Removed 1 source from B; the source stays, in no collection',
    );
  });

  test('a parent shows what its children hold, each once, and a second placement is the same collection', async () => {
    const id = await add({ title: 'Deep' });
    const parent = await me.at<Changed>('POST', '/collections', { name: 'Parent' });
    const child = await me.at<Changed>('POST', '/collections', { name: 'Child', parent: parent.id });
    for (const c of [parent, child]) await me.at('POST', '/filing', { ids: [id], collection: c.id, present: true });
    await me.at('POST', '/placements', { collection: child.id, parent: null });
    const places = await me.at<PlacesReply>('GET', '/places');
    expect(places.collections.find((c) => c.id === parent.id)).toMatchObject({ count: 1 });
    expect(places.placements.filter((p) => p.collection === child.id)).toHaveLength(2);
    expect(await me.titles('', `&collection=${parent.id}`)).toEqual(['Deep']);
    const circular = await me.call<Problem>('POST', `/w/${me.workspace}/placements`, {
      collection: parent.id,
      parent: child.id,
    });
    expect(circular.body.code).toBe('circular');
  });

  test('the bin keeps all a source had, and restoring brings it back', async () => {
    const id = await add({ title: 'Binned with its tag' });
    await me.at('POST', '/tagging', { ids: [id], name: 'kept', present: true });
    const c = await me.at<Changed>('POST', '/collections', { name: 'Kept place' });
    await me.at('POST', '/filing', { ids: [id], collection: c.id, present: true });
    await me.at('POST', '/presence', { ids: [id], to: 'bin' });
    await server.settle();
    expect(await me.titles('binned')).toEqual([]);
    expect(await me.titles('binned', '&scope=bin')).toEqual(['Binned with its tag']);
    await me.at('POST', '/presence', { ids: [id], to: 'live' });
    await server.settle();
    expect(await me.titles('binned tag:kept in:"Kept place"')).toEqual(['Binned with its tag']);
  });

  test('what waited in the bin for thirty days is removed for good, and nothing else', async () => {
    const [old, young, live] = [
      await add({ title: 'Old' }),
      await add({ title: 'Young' }),
      await add({ title: 'Live' }),
    ];
    await me.at('POST', '/presence', { ids: [old, young], to: 'bin' });
    const { db, storage } = server.app.services;
    await db.execute(
      sql`update sources set changed_at = now() - interval '31 days' where workspace_id = ${me.workspace} and id in (${old}, ${live})`,
    );
    expect(await purge(db, storage)).toBe(1);
    expect((await me.call('GET', `/w/${me.workspace}/sources/${old}`)).status).toBe(404);
    for (const id of [young, live]) expect((await me.call('GET', `/w/${me.workspace}/sources/${id}`)).status).toBe(200);
  });

  test('undo takes back the last thing, redo does it again, and something new ends the redoing', async () => {
    const id = await add({ title: 'Undo me' });
    for (const state of ['to read', 'reading', 'read']) await me.at('POST', '/reading', { ids: [id], state });
    const reading = async () => (await me.at<SourceDetail>('GET', `/sources/${id}`)).reading;
    await me.at('POST', '/undo');
    await me.at('POST', '/undo');
    expect(await reading()).toBe('to read');
    await me.at('POST', '/redo');
    expect(await reading()).toBe('reading');
    await me.at('POST', '/redo');
    expect(await reading()).toBe('read');
    await me.at('POST', '/undo');
    await me.at('POST', '/tagging', { ids: [id], name: 'new', present: true });
    expect((await me.call<Problem>('POST', `/w/${me.workspace}/redo`)).body.code).toBe('nothing_to_redo');
  });
});

/** What stands in the database, in the shape of the model. */
async function stored(workspace: string): Promise<unknown> {
  const found = await rows<{
    id: string;
    record: SourceRecord;
    presence: string;
    reading: string | null;
    tags: string[];
    collections: string[];
  }>(
    server.app.services.db,
    sql`
    select s.id, s.record, s.presence, s.reading,
      array(select tag_id::text from source_tags t where t.workspace_id = s.workspace_id and t.source_id = s.id order by 1) as tags,
      array(select collection_id::text from collection_sources c where c.workspace_id = s.workspace_id and c.source_id = s.id order by 1) as collections
    from sources s where s.workspace_id = ${workspace} order by s.id`,
  );
  return found;
}

const modelled = (library: Library): unknown =>
  [...library.sources]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([id, s]) => ({
      id,
      record: s.record,
      presence: s.presence,
      reading: s.reading,
      tags: [...s.tags].sort(),
      collections: [...s.collections].sort(),
    }));

test('any run of changes does in SQL what the model says, and undone in turn leaves what was there before', async () => {
  const owner = await server.person('steward');
  const actor = { workspaceId: owner.workspace, userId: owner.info.userId };
  const { services } = server.app;
  const ids: string[] = [];
  for (const title of ['One', 'Two', 'Three'])
    ids.push((await owner.at<Changed>('POST', '/sources', { record: { type: 'book', title } })).id!);
  const collections = [
    await owner.at<Changed>('POST', '/collections', { name: 'A' }),
    await owner.at<Changed>('POST', '/collections', { name: 'B' }),
  ].map((c) => c.id!);
  const tag = '018f0000-0000-7000-8000-000000000001';
  await services.db.execute(
    sql`insert into tags (workspace_id, id, name, subject) values (${owner.workspace}, ${tag}, 'x', false)`,
  );
  const before = await stored(owner.workspace);
  const library = emptyLibrary();
  for (const [i, id] of ids.entries())
    library.sources.set(id, {
      record: { type: 'book', title: ['One', 'Two', 'Three'][i]! },
      presence: 'live',
      reading: null,
      tags: new Set(),
      collections: new Set(),
      files: new Set(),
    });

  const some = fc.subarray(ids, { minLength: 1 });
  const anyChange = fc.oneof(
    fc.record({
      do: fc.constant('tag' as const),
      tag: fc.constant(tag),
      name: fc.constant('x'),
      subject: fc.constant(false),
      sources: some,
      present: fc.boolean(),
    }),
    fc.record({
      do: fc.constant('file' as const),
      collection: fc.constantFrom(...collections),
      name: fc.constant('A'),
      sources: some,
      present: fc.boolean(),
    }),
    fc.tuple(some, fc.constantFrom('to read' as const, 'read' as const, null)).map(([s, after]): Change => ({
      do: 'reading',
      states: Object.fromEntries(s.map((id) => [id, { before: null, after }])),
    })),
    fc.tuple(some, fc.boolean()).map(([s, out]): Change => ({
      do: 'presence',
      sources: s,
      from: out ? 'live' : 'bin',
      to: out ? 'bin' : 'live',
    })),
    fc.tuple(fc.constantFrom(...ids), fc.constantFrom('P', 'Q', null)).map(([source, after]): Change => ({
      do: 'edit',
      source,
      fields: { publisher: { before: (library.sources.get(source)!.record.publisher ?? null) as never, after } },
    })),
  ) as fc.Arbitrary<Change>;

  await fc.assert(
    fc.asyncProperty(fc.array(fc.integer({ min: 0, max: 1e6 }), { minLength: 1, maxLength: 8 }), async (seeds) => {
      const done: { id: string; change: Change }[] = [];
      for (const seed of seeds) {
        // Drawn one at a time: an edit must know what the field holds now.
        const [change] = fc.sample(
          anyChange.map((c) =>
            c.do === 'edit'
              ? {
                  ...c,
                  fields: {
                    publisher: {
                      ...c.fields.publisher!,
                      before: (library.sources.get(c.source)!.record.publisher ?? null) as never,
                    },
                  },
                }
              : c,
          ),
          { numRuns: 1, seed },
        );
        const committed = await commit(services, actor, change!);
        if (committed.changeId) {
          apply(library, committed.change);
          done.push({ id: committed.changeId, change: committed.change });
        }
        expect(await stored(owner.workspace)).toEqual(modelled(library));
      }
      for (const { id, change } of done.reverse()) {
        await undo(services, actor, id);
        apply(library, invert(change));
      }
      expect(await stored(owner.workspace)).toEqual(before);
      expect(modelled(library)).toEqual(before);
    }),
    { numRuns: 15 },
  );
});

test('Ctrl+Z pressed several times in a moment takes as many steps back, and as many forward', async () => {
  const one = await server.person('contributor');
  const { id } = await one.at<Changed>('POST', '/sources', { record: { type: 'book', title: 'Pilot book' } });
  const names = ['first', 'second', 'third'];
  for (const name of names) await one.at('POST', '/tagging', { ids: [id], name, present: true });
  const tags = async (): Promise<string[]> =>
    (await one.at<SourceDetail>('GET', `/sources/${id}`)).tags.map((t) => t.name).sort();
  const undone = await Promise.all(names.map(() => one.at<Changed>('POST', '/undo')));
  expect(new Set(undone.map((u) => u.says)).size).toBe(3);
  expect(await tags()).toEqual([]);
  await Promise.all([one.at('POST', '/redo'), one.at('POST', '/redo')]);
  expect(await tags()).toEqual(['first', 'second']);
});
