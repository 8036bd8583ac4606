import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type {
  Changed,
  HistoryEntry,
  HistoryReply,
  PlacesReply,
  Problem,
  SourceDetail,
  TouchedByChange,
} from '@pandecta/contract';
import { commit } from './service.ts';
import { purge } from '../sources/purge.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => {
  server = await startTestServer({ alone: true });
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
    expect((await me.at<SourceDetail>('GET', `/sources/${id}`)).record).toEqual({
      type: 'book',
      title: 'Before',
      'citation-key': 'before',
    });
  });

  test('an edit of a field another has changed since is refused, says who, and shows both', async () => {
    const id = await add({ title: 'One', note: 'first' });
    const other = await server.person('contributor', me.workspace);
    // Their edit came with another, as one step: it is met all the same.
    await commit(
      server.app.services,
      { workspaceId: me.workspace, userId: other.info.userId },
      {
        do: 'all',
        says: 'Proofread',
        changes: [{ do: 'edit', source: id, fields: { title: { before: 'One', after: 'Two' } } }],
      },
    );
    const stale = await me.call<Problem>('PATCH', `/w/${me.workspace}/sources/${id}`, {
      fields: { title: 'Three' },
      seen: { title: 'One' },
    });
    expect(stale).toMatchObject({
      status: 409,
      body: {
        code: 'stale_edit',
        detail: 'A contributor changed title since you opened it. Nothing of yours was saved.',
        conflict: {
          by: 'A contributor',
          moved: [{ what: 'title', field: 'title', yours: 'Three', theirs: 'Two' }],
        },
      },
    });
    await me.at('PATCH', `/sources/${id}`, { fields: { note: 'mine' }, seen: { note: 'first' } });
    // Both came to the same: nothing to tell.
    const same = await me.at<Changed>('PATCH', `/sources/${id}`, { fields: { title: 'Two' }, seen: { title: 'One' } });
    expect(same.changeId).toBeNull();
    expect((await me.at<SourceDetail>('GET', `/sources/${id}`)).record).toMatchObject({ title: 'Two', note: 'mine' });
  });

  test('so is a name given to a collection, and a gloss, since one began', async () => {
    const { id } = await me.at<Changed>('POST', '/collections', { name: 'Sluices' });
    await me.at('PATCH', `/collections/${id}`, { name: 'Gates' });
    const reply = await me.call<Problem>('PATCH', `/w/${me.workspace}/collections/${id}`, {
      name: 'Locks',
      seen: 'Sluices',
    });
    expect(reply.body.detail).toBe(
      'You, in another window, changed the name of the collection since you opened it. Nothing of yours was saved.',
    );
  });

  test('an undo that would overwrite what someone else did since is refused and says why', async () => {
    const id = await add({ title: 'A' });
    const { changeId } = await me.at<Changed>('PATCH', `/sources/${id}`, { fields: { title: 'B' } });
    const other = await server.person('contributor', me.workspace);
    await other.at('PATCH', `/sources/${id}`, { fields: { title: 'C' } });
    const reply = await me.call<Problem>('POST', `/w/${me.workspace}/changes/${changeId}/undo`);
    expect(reply.body).toMatchObject({
      code: 'undo_conflict',
      detail: 'This cannot be undone any more: A contributor changed title since then.',
    });
  });

  test('why a change cannot be undone is told beforehand, and does not wait for one who is writing', async () => {
    const id = await add({ title: 'A' });
    const { changeId } = await me.at<Changed>('PATCH', `/sources/${id}`, { fields: { title: 'B' } });
    const why = async (): Promise<string> =>
      (await me.at<TouchedByChange>('GET', `/changes/${changeId}/sources`)).stays;
    expect(await why()).toBe('');
    const other = await server.person('contributor', me.workspace);
    await other.at('PATCH', `/sources/${id}`, { fields: { title: 'C' } });
    expect(await why()).toContain('A contributor changed title since then');
    const holder = await server.app.services.database.pool.connect();
    try {
      await holder.query('begin');
      await holder.query('select 1 from sources where id = $1 for update', [id]);
      expect(await why()).toBe('');
    } finally {
      await holder.query('rollback');
      holder.release();
    }
  });

  test('a collection another has filed in is not taken back from under them; what came with an import is, and says so', async () => {
    const other = await server.person('contributor', me.workspace);
    const made = await me.at<Changed>('POST', '/collections', { name: 'Shared' });
    const source = await me.at<Changed>('POST', '/sources', { record: { type: 'book', title: 'Shared source' } });
    await other.at('POST', '/filing', { ids: [source.id], collections: [made.id], present: true });
    const reply = await me.call<Problem>('POST', `/w/${me.workspace}/changes/${made.changeId}/undo`);
    expect(reply.body.detail).toBe(
      'This cannot be undone any more: others worked on the collection since then. A contributor: “Filed 1 source in Shared”.',
    );
    const undone = await me.at<Changed>('POST', `/changes/${source.changeId}/undo`);
    expect(undone.says).toContain(
      '; this also undid what others did to 1 source since (A contributor: “Filed 1 source',
    );
  });

  test('what another has taken away since does not come back and go, and there was nothing to undo', async () => {
    const id = await add({ title: 'Tagged' });
    const { changeId } = await me.at<Changed>('POST', '/tagging', { ids: [id], name: 'passing', present: true });
    const other = await server.person('contributor', me.workspace);
    await other.at('POST', '/tagging', { ids: [id], name: 'passing', present: false });
    const undone = await me.at<Changed>('POST', `/changes/${changeId}/undo`);
    expect(undone).toMatchObject({ changeId: null, says: expect.stringMatching(/^Nothing was left/) as string });
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
    for (const c of [a, b]) await me.at('POST', '/filing', { ids: [id], collections: [c.id], present: true });
    expect((await me.at<Changed>('POST', '/filing', { ids: [id], collections: [a.id], present: false })).says).toBe(
      'Removed 1 source from A; still in 1 other place',
    );
    expect((await me.at<Changed>('POST', '/filing', { ids: [id], collections: [b.id], present: false })).says).toBe(
      'Removed 1 source from B; the source stays, in no collection',
    );
  });

  test('a parent shows what its children hold, each once, and a second placement is the same collection', async () => {
    const id = await add({ title: 'Deep' });
    const parent = await me.at<Changed>('POST', '/collections', { name: 'Parent' });
    const child = await me.at<Changed>('POST', '/collections', { name: 'Child', parent: parent.id });
    for (const c of [parent, child]) await me.at('POST', '/filing', { ids: [id], collections: [c.id], present: true });
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
    await me.at('POST', '/filing', { ids: [id], collections: [c.id], present: true });
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

test('the history of the workspace names the source a change was made to, where its sentence does not', async () => {
  const { id } = await me.at<Changed>('POST', '/sources', { record: { type: 'book', title: 'Harbours of the coast' } });
  await me.at('PATCH', `/sources/${id}`, { fields: { publisher: 'Tern Press' } });
  await me.at('POST', '/stars', { ids: [id], present: true });
  const { entries } = await me.at<{ entries: HistoryEntry[] }>('GET', '/changes');
  const [star, edit, added] = entries;
  expect(edit).toMatchObject({ says: 'Changed publisher', on: { id, title: 'Harbours of the coast' } });
  expect(added!.says).toContain('Harbours of the coast');
  expect([star!.on, added!.on]).toEqual([undefined, undefined]);
});

test('what a source was merged from is told with it, for as long as it is merged', async () => {
  await me.import({ 'first.json': JSON.stringify([{ id: 'a', type: 'book', title: 'Ferries of the coast' }]) });
  await me.import({ 'second.json': JSON.stringify([{ id: 'b', type: 'book', title: 'Creeks of the north' }]) });
  await server.settle();
  const [one, other] = await Promise.all(
    ['title:Ferries', 'title:Creeks'].map(async (q) => (await me.ask(q)).rows[0]!.id),
  );
  await me.at('POST', '/merges', { into: one, sources: [other] });
  const merged = async () => (await me.at<SourceDetail>('GET', `/sources/${one}`)).mergedFrom.map((m) => m.cameFrom);
  expect(await merged()).toEqual(['second.json']);
  await me.at('POST', '/undo');
  expect(await merged()).toEqual([]);
});

test('of what was done to several sources none is named alone', async () => {
  const ids = [await add({ title: 'Harbours one' }), await add({ title: 'Harbours two' })];
  await me.at('POST', '/tagging', { ids, name: 'quay', present: true });
  const { entries } = await me.at<{ entries: HistoryEntry[] }>('GET', '/changes');
  expect([entries[0]!.says, entries[0]!.on]).toEqual(['Added the tag “quay” to 2 sources', undefined]);
});
