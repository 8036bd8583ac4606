/** A member who sees one collection of a workspace, at every route there is. */
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type {
  CollectionNode,
  FacetReply,
  HistoryEntry,
  NarrowReply,
  Problem,
  SourceDetail,
  SourcePage,
  SuggestedValues,
  Touched,
} from '@pandecta/contract';
import { bodiesFor, pathIn, queryFor, WITHIN, type Ids } from '../testing/every-route.ts';
import { makeLibrary } from '../testing/library.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let steward: Person;
/** Sees the collection "Tides" alone. */
let bounded: Person;
/** What stands outside of it, and what stands in it. */
let outside: Ids;
const inside: Ids = {};
/** Part of every name outside. */
const OUTSIDE = /Outland|Hours of the lower gate|The keeper|[Tt]heirs|Gates/;

const make = async (path: string, body: object): Promise<string> =>
  (await steward.at<{ id: string }>('POST', path, body)).id;

beforeAll(async () => {
  server = await startTestServer();
  steward = await server.person('steward');
  outside = await makeLibrary(steward);
  inside.collection = await make('/collections', { name: 'Tides' });
  inside.below = await make('/collections', { name: 'Neap tides', parent: inside.collection });
  inside.source = await make('/sources', {
    record: { type: 'book', title: 'Tides at the gate', issued: { 'date-parts': [[1871]] } },
    destination: { collections: [inside.below], tags: ['ebb'], reading: null },
  });
  const shelf = await make('/collections', { name: 'Outland shelf', parent: outside.collection });
  outside.shelf = shelf;
  const beside = { collections: [shelf], tags: ['outland tag', 'ebb'], reading: null };
  outside.beside = await make('/sources', {
    record: { type: 'book', title: 'Outland tides at the gate', author: [{ family: 'Outlander' }] },
    destination: beside,
  });
  // What stands inside is tied to what stands outside in every way there is.
  await steward.at('POST', '/filing', { ids: [inside.source], collections: [shelf], present: true });
  for (const as of ['version of', 'cites'])
    await steward.at('PUT', '/relation', { from: inside.source, to: outside.beside, as, present: true });
  await steward.at('POST', '/tagging', { ids: [inside.source, outside.beside], name: 'flood', present: true });
  inside.label = await make('/labels', { name: 'Checked', letter: 'C', tint: 'ochre' });
  await steward.at('POST', '/labelling', { ids: [inside.source], label: inside.label, present: true });
  await server.settle();
  bounded = await server.person('contributor', steward.workspace);
  await server.app.services.database.db.execute(
    sql`update members set bounds = ${inside.collection}::uuid where workspace_id = ${steward.workspace} and user_id = ${bounded.info.userId}`,
  );
});
afterAll(() => server.close());

const shows = (reply: unknown): string[] => {
  const text = JSON.stringify(reply);
  // What marks may mean is the workspace's, and a file is named by nobody without its source.
  const ids = Object.entries(outside).filter(([kind, id]) => kind !== 'sense' && text.includes(id));
  return [...ids.map(([kind]) => kind), ...(OUTSIDE.exec(text) ?? [])];
};

const ask = (path: string): Promise<unknown> => bounded.at('GET', path);
const askFor = async <T>(path: string): Promise<T> => (await ask(path)) as T;

describe.each([
  ['what stands outside', () => outside],
  ['what stands inside', () => ({ ...outside, ...inside })],
] as const)('asked about %s', (_, of) => {
  test.each(WITHIN)('$name shows nothing of what stands outside', async ({ name, route }) => {
    const ids = of();
    const path = pathIn(bounded.workspace, route, ids);
    const body = route.method === 'GET' ? undefined : bodiesFor(ids)[name];
    const { status, body: reply } = await bounded.call<Problem>(route.method, path + queryFor(route), body);
    if (!route.bounded) expect([status, reply.code]).toEqual([403, 'not_allowed']);
    else expect([status < 500, shows(status < 400 ? reply : '')]).toEqual([true, []]);
  });
});

test('they are told that they may read, cite and keep what is their own', async () => {
  const { body } = await bounded.call<Person['info']>('GET', '/session');
  expect(body.workspaces.find((w) => w.id === bounded.workspace)!.may).toEqual(['read', 'cite', 'own']);
});

test('the list, its counts and what it may be narrowed by are of that collection', async () => {
  const page = await askFor<SourcePage>('/sources?q=gate');
  expect(page.rows.map((r) => r.record.title)).toEqual(['Tides at the gate']);
  expect([page.total, page.rows[0]!.places]).toEqual([1, [inside.below]]);
  const { facets, total } = await askFor<NarrowReply>('/narrow');
  const named = facets.map(({ name, values }) => [name, values.map((v) => `${v.name} ${v.count}`)]);
  expect(total).toBe(1);
  expect(Object.fromEntries(named)).toMatchObject({
    Tag: ['ebb 1', 'flood 1'],
    Collection: ['Neap tides 1', 'Tides 1'],
  });
  expect((await askFor<FacetReply>('/facet?facet=in')).values.map((v) => v.name)).toEqual(['Neap tides', 'Tides']);
  for (const field of ['tag', 'in', 'person'])
    expect(shows(await askFor<SuggestedValues>(`/suggest?field=${field}&begins=`))).toEqual([]);
});

test('nobody learns by a question whether a name is one of what stands outside', async () => {
  const told = async (q: string): Promise<unknown> => {
    const { total, notes, why } = await askFor<SourcePage>(`/sources?q=${encodeURIComponent(q)}`);
    return JSON.parse(JSON.stringify({ total, notes, why }).replaceAll(q, '…')) as unknown;
  };
  for (const name of ['tag:"outland tag"', 'in:"Outland shelf"', 'person:Outlander', 'saved:Theirs'])
    expect(await told(name)).toEqual(await told(name.replace(/[:"A-Za-z ]+$/, ':"no such thing"')));
});

test('collections stand from theirs downwards, and say how many of its sources they hold', async () => {
  const { collections, placements, total, bin, loose } = await askFor<{
    collections: CollectionNode[];
    placements: { parent: string | null }[];
    total: number;
    bin: number;
    loose: number;
  }>('/places');
  expect(collections.map((c) => [c.name, c.count])).toEqual([
    ['Neap tides', 1],
    ['Tides', 1],
  ]);
  expect(placements.map((p) => p.parent).sort()).toEqual([inside.collection, null].sort());
  expect([total, bin, loose]).toEqual([1, 0, 0]);
});

test('of a source that stands elsewhere too, they see it as far as it stands here', async () => {
  const source = await askFor<SourceDetail>(`/sources/${inside.source}`);
  expect([source.record.title, source.places.map((p) => p.path), source.versions]).toEqual([
    'Tides at the gate',
    ['Tides › Neap tides'],
    [],
  ]);
});

test('the history tells what was done to what they see alone, and undoes nothing else', async () => {
  const { entries } = await askFor<{ entries: HistoryEntry[] }>('/changes');
  expect(entries.map((e) => e.says).join('\n')).toContain('Tides at the gate');
  expect(shows(entries)).toEqual([]);
  const { entries: all } = await steward.at<{ entries: HistoryEntry[] }>('GET', '/changes');
  const tagging = all.find((e) => e.says.includes('flood'))!;
  const reply = await bounded.call<Problem>('POST', `/w/${bounded.workspace}/changes/${tagging.id}/undo`);
  expect([reply.status, reply.body.code]).toEqual([404, 'no_such_change']);
});

test('news says that something was touched, and names nothing', async () => {
  const stop = new AbortController();
  const response = await fetch(`${server.base}/api/w/${bounded.workspace}/live`, {
    headers: { cookie: bounded.cookie },
    signal: stop.signal,
  });
  const touched = (async (): Promise<Touched> => {
    let text = '';
    for await (const part of response.body!.pipeThrough(new TextDecoderStream())) {
      text += part;
      const data = /^data: (.*)$/m.exec(text)?.[1];
      if (data) return JSON.parse(data) as Touched;
    }
    throw new Error('the stream ended');
  })();
  await steward.at('POST', '/tagging', { ids: [outside.beside], name: 'outland tag', present: false });
  expect(await touched).toEqual({ kinds: { source: 'all', tag: 'all' } });
  stop.abort();
});

test('a star is theirs, on what they see', async () => {
  await bounded.at('POST', '/stars', { ids: [inside.source, outside.beside], present: true });
  const starred = await steward.at<HistoryEntry[]>('GET', `/sources/${outside.beside}/history`);
  expect(JSON.stringify(starred)).not.toContain('star');
  expect(await askFor<SourcePage>('/sources?q=is:starred')).toMatchObject({ total: 1 });
  await bounded.at('POST', '/undo');
  expect(await askFor<SourcePage>('/sources?q=is:starred')).toMatchObject({ total: 0 });
});
