import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Changed, LabelList, NarrowReply, SourceDetail } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let ids: string[];
let label: string;
beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('contributor');
  await me.import({
    'three.ris': ['Groyne', 'Sluice', 'Weir'].map((t) => `TY  - BOOK\nTI  - ${t}\nER  - \n`).join(''),
  });
  ids = (await me.ask('', '&sort=title')).rows.map((r) => r.id);
  const body = { name: 'Key authority', letter: 'K', tint: 'plum', says: 'The court relied on it' };
  label = (await me.at<Changed>('POST', '/labels', body)).id!;
});
afterAll(() => server.close());

const found = async (q: string): Promise<(string | undefined)[]> =>
  (await me.ask(q, '&sort=title')).rows.map((r) => r.record.title);
const detail = (id: string): Promise<SourceDetail> => me.at('GET', `/sources/${id}`);

test('a label is put on many, says what it means on each, is asked for by name and counted', async () => {
  const { says } = await me.at<Changed>('POST', '/labelling', { ids: ids.slice(0, 2), label, present: true });
  expect(says).toBe('Labelled 2 sources “Key authority”');
  const [first] = (await me.ask('label:key', '&sort=title')).rows;
  expect(first!.labels).toEqual([
    { id: label, name: 'Key authority', letter: 'K', tint: 'plum', says: 'The court relied on it' },
  ]);
  expect(await found('-label:"key authority"')).toEqual(['Weir']);
  const { facets } = await me.at<NarrowReply>('GET', '/narrow');
  expect(facets.find((f) => f.type === 'label')!.values).toEqual([{ key: label, name: 'Key authority', count: 2 }]);
  await me.at('POST', '/undo', {});
  expect(await found('label:key')).toEqual([]);
});

test('a label that is removed is borne by none, and by the same as before when that is taken back', async () => {
  await me.at('POST', '/labelling', { ids: [ids[2]], label, present: true });
  await me.at('DELETE', `/labels/${label}`);
  expect((await detail(ids[2]!)).labels).toEqual([]);
  expect(await found('label:key')).toEqual([]);
  await me.at('POST', '/undo', {});
  expect((await detail(ids[2]!)).labels.map((l) => l.letter)).toEqual(['K']);
  expect(await found('label:key')).toEqual(['Weir']);
});

test('a label without a letter has the first of its name, whole', async () => {
  const id = (await me.at<Changed>('POST', '/labels', { name: '🌊 tide tables', letter: ' ', tint: 'moss' })).id!;
  const { labels } = await me.at<LabelList>('GET', '/labels');
  expect(labels.find((l) => l.id === id)!.letter).toBe('🌊');
  await me.at('DELETE', `/labels/${id}`);
});

test('two labels of one name there cannot be; another name is told of at once', async () => {
  const again = await me.call('POST', `/w/${me.workspace}/labels`, {
    name: 'KEY authority',
    letter: 'A',
    tint: 'moss',
  });
  expect(again.status).toBe(400);
  await me.at('PATCH', `/labels/${label}`, { name: 'Leading case', letter: 'L', tint: 'plum' });
  expect((await me.at<LabelList>('GET', '/labels')).labels.map((l) => l.name)).toEqual(['Leading case']);
  expect(await found('label:leading')).toEqual(['Weir']);
  await me.at('POST', '/undo', {});
});

test('a rating is asked for by its range, and an undo leaves one given since', async () => {
  const rate = (of: string[], rating: number | null): Promise<Changed> =>
    me.at('POST', '/ratings', { ids: of, rating });
  expect((await rate(ids, 3)).says).toBe('Rated 3 sources 3 of 5');
  const first = await rate([ids[0]!, ids[1]!], 5);
  await rate([ids[1]!], 1);
  expect(await found('rating:4-')).toEqual(['Groyne']);
  await me.at('POST', `/changes/${first.changeId}/undo`, {});
  expect([await found('rating:3'), await found('rating:1')]).toEqual([['Groyne', 'Weir'], ['Sluice']]);
  expect((await rate(ids, null)).says).toBe('Took the rating from 3 sources');
  expect((await detail(ids[0]!)).rating).toBeNull();
  expect((await me.call('POST', `/w/${me.workspace}/ratings`, { ids, rating: 6 })).status).toBe(400);
});

test('what is merged bears the labels of both, and the better rating where it had none', async () => {
  await me.at('POST', '/labelling', { ids: [ids[1]], label, present: true });
  await me.at('POST', '/ratings', { ids: [ids[1]], rating: 4 });
  await me.at('POST', '/merges', { into: ids[0], sources: [ids[1]] });
  expect(await detail(ids[0]!)).toMatchObject({ rating: 4, labels: [{ name: 'Key authority' }] });
  await me.at('POST', '/undo', {});
  expect(await detail(ids[0]!)).toMatchObject({ rating: null, labels: [] });
});
