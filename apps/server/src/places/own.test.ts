/** Collections that are one member's own: what others see of them is nothing. */
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type {
  BatchSummary,
  Changed,
  OverviewReply,
  HistoryReply,
  NarrowReply,
  PlacesReply,
  SourceDetail,
  SourcePage,
  SuggestedValues,
} from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let other: Person;
let reader: Person;
let ids: string[];
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  me = await server.person('steward');
  other = await server.person('contributor', me.workspace);
  reader = await server.person('reader', me.workspace);
  await me.import({ 'three.ris': ['Ebb', 'Marsh', 'Silt'].map((t) => `TY  - BOOK\nTI  - ${t}\nER  - \n`).join('') });
  ids = (await me.ask('', '&sort=title')).rows.map((r) => r.id);
});

const make = async (by: Person, name: string, more: object = {}): Promise<string> =>
  (await by.at<Changed>('POST', '/collections', { name, ...more })).id!;
const file = (by: Person, collection: string, of = ids): Promise<unknown> =>
  by.at('POST', '/filing', { ids: of, collections: [collection], present: true });
const seenBy = async (by: Person): Promise<Record<string, number>> =>
  Object.fromEntries((await by.at<PlacesReply>('GET', '/places')).collections.map((c) => [c.name, c.count]));
/** All that is told of collections, wherever it is told. */
async function told(by: Person, id: string): Promise<string> {
  const narrow = await by.at<NarrowReply>('GET', '/narrow?facets=in');
  const everywhere = await Promise.all([
    seenBy(by),
    by.at<SourcePage>('GET', '/sources'),
    by.at<SourcePage>('GET', '/sources?group=in'),
    by.at<SourceDetail>('GET', `/sources/${ids[0]!}`),
    by.at<HistoryReply>('GET', '/changes'),
    by.at<HistoryReply>('GET', `/sources/${ids[0]!}/history`),
    by.at<BatchSummary>('POST', '/summary', { ids }),
    by.at<OverviewReply>('GET', '/overview?rows=in&columns=kind'),
    by.at<SuggestedValues>('GET', '/suggest?field=in&begins=Doub'),
    by.at('GET', `/sources/${ids[1]!}/suggestions`),
    narrow.facets,
  ]);
  const text = JSON.stringify(everywhere);
  return [text.includes('Doubts') ? 'named' : '', text.includes(id) ? 'its id' : ''].filter(Boolean).join(', ');
}

test('what is one’s own is in no list, count, facet, question, suggestion or history of another', async () => {
  const law = await make(me, 'Law');
  const doubts = await make(me, 'Doubts', { mine: true, parent: law });
  await file(me, doubts, ids.slice(0, 2));
  await file(me, law, ids.slice(1, 2));
  expect([await seenBy(me), await seenBy(other), await seenBy(reader)]).toEqual([
    { Law: 2, Doubts: 2 },
    { Law: 1 },
    { Law: 1 },
  ]);
  expect([await told(me, doubts), await told(other, doubts), await told(reader, doubts)]).toEqual([
    'named, its id',
    '',
    '',
  ]);
  const titles = (by: Person): Promise<string[][]> =>
    Promise.all([
      by.titles('in:Doubts'),
      by.titles('', `&collection=${doubts}`),
      by.titles('', `&include=in%3D${doubts}`),
      by.titles('in:Law'),
      by.titles('is:loose'),
    ]);
  expect(await titles(me)).toEqual([['Ebb', 'Marsh'], ['Ebb', 'Marsh'], ['Ebb', 'Marsh'], ['Ebb', 'Marsh'], ['Ebb', 'Silt']]); // prettier-ignore
  expect(await titles(other)).toEqual([[], [], [], ['Marsh'], ['Ebb', 'Silt']]);
  const refused = await Promise.all([
    other.call('PATCH', `/w/${me.workspace}/collections/${doubts}`, { name: 'Mine' }),
    other.call('POST', `/w/${me.workspace}/filing`, { ids, collections: [doubts], present: true }),
    other.call('GET', `/w/${me.workspace}/compare?of=${law}&of=${doubts}`),
    other.call('POST', `/w/${me.workspace}/collections/${law}/merge`, { others: [doubts] }),
  ]);
  expect(refused.map((r) => r.status)).toEqual([404, 404, 404, 404]);
});

test('shown to all, it counts for all; kept for oneself again, for nobody else; undone, as it was', async () => {
  const doubts = await make(me, 'Doubts', { mine: true });
  await file(me, doubts);
  const turn = (mine: boolean): Promise<Changed> => me.at<Changed>('PATCH', `/collections/${doubts}`, { mine });
  expect((await turn(false)).says).toBe('Showed Doubts to all members');
  expect([await seenBy(other), await other.titles('is:loose')]).toEqual([{ Doubts: 3 }, []]);
  await turn(true);
  expect([await seenBy(other), (await other.titles('is:loose')).length]).toEqual([{}, 3]);
  await me.at('POST', '/undo', {});
  expect(await seenBy(other)).toEqual({ Doubts: 3 });
});

test('a reader keeps collections of their own, files in them, and alters no others', async () => {
  const mine = await make(reader, 'To cite', { mine: true });
  await file(reader, mine, [ids[2]!]);
  expect([await seenBy(reader), await seenBy(me)]).toEqual([{ 'To cite': 1 }, {}]);
  const law = await make(me, 'Law');
  const refused = await Promise.all([
    reader.call('POST', `/w/${me.workspace}/collections`, { name: 'For all' }),
    reader.call('POST', `/w/${me.workspace}/filing`, { ids, collections: [law], present: true }),
    reader.call('PATCH', `/w/${me.workspace}/collections/${mine}`, { mine: false }),
    reader.call('POST', `/w/${me.workspace}/placements`, { collection: law, parent: mine }),
  ]);
  expect(refused.map((r) => r.status)).toEqual([403, 403, 403, 403]);
  await reader.at('POST', '/undo', {});
  expect(await seenBy(reader)).toEqual({ Law: 0, 'To cite': 0 });
});

test('what all see never stands under what one alone sees', async () => {
  const mine = await make(me, 'Doubts', { mine: true });
  const law = await make(me, 'Law');
  const cases = await make(me, 'Cases', { parent: law });
  const refused = await Promise.all([
    me.call('POST', `/w/${me.workspace}/placements`, { collection: cases, parent: mine }),
    me.call('PATCH', `/w/${me.workspace}/collections/${law}`, { mine: true }),
  ]);
  expect(refused.map((r) => r.status)).toEqual([400, 400]);
  const below = await make(me, 'Deeper', { parent: mine });
  expect([Object.keys(await seenBy(other)).sort(), (await me.call('PATCH', `/w/${me.workspace}/collections/${below}`, { mine: false })).status]).toEqual([['Cases', 'Law'], 400]); // prettier-ignore
});

test('whatever is filed where, each member’s counts are those of what they see, counted one by one', async () => {
  const [law, mine, theirs] = [
    await make(me, 'Law'),
    await make(me, 'Mine', { mine: true }),
    await make(other, 'Theirs', { mine: true }),
  ];
  await file(me, law, [ids[0]!]);
  await file(me, mine, [ids[0]!, ids[1]!]);
  await file(other, theirs, [ids[1]!, ids[2]!]);
  for (const [by, of] of [
    [me, [law, mine]],
    [other, [law, theirs]],
    [reader, [law]],
  ] as const) {
    const told = (await by.at<PlacesReply>('GET', '/places')).collections;
    const counted = await Promise.all(of.map(async (c) => (await by.titles('', `&collection=${c}`)).length));
    expect(of.map((c) => told.find((t) => t.id === c)!.count)).toEqual(counted);
    expect(told.length).toBe(of.length);
  }
});

test('no page but one’s own hears of it', async () => {
  const doubts = await make(me, 'Doubts', { mine: true });
  const response = await fetch(`${server.base}/api/w/${me.workspace}/live`, { headers: { cookie: other.cookie } });
  const news = response.body!.pipeThrough(new TextDecoderStream()).getReader();
  let heard = (await news.read()).value ?? '';
  await file(me, doubts);
  await me.at('POST', '/tagging', { ids: [ids[0]], name: 'heard', present: true });
  while (!heard.includes(ids[0]!)) heard += (await news.read()).value ?? '';
  await news.cancel();
  expect([heard.includes(doubts), heard.includes(ids[2]!)]).toEqual([false, false]);
});

test('merging and joining carry what is each member’s own along, and tell no other of it', async () => {
  const doubts = await make(me, 'Doubts', { mine: true });
  await file(me, doubts, ids.slice(0, 1));
  await me.at('POST', '/stars', { ids: ids.slice(0, 1), present: true });
  await me.at('POST', '/reading', { ids: ids.slice(0, 1), state: 'reading' });
  const { changeId } = await other.at<Changed>('POST', '/merges', { into: ids[1], sources: [ids[0]] });
  expect(await me.at('GET', `/sources/${ids[1]}`)).toMatchObject({ starred: true, reading: 'reading' });
  expect((await seenBy(me)).Doubts).toBe(1);
  const history = await other.at<HistoryReply>('GET', `/sources/${ids[1]}/history`);
  const text = JSON.stringify(history);
  for (const own of ['Doubts', doubts, '"star"', '"reading"', me.info.userId]) {
    // Who made a change is told of each.
    const told = own === me.info.userId ? JSON.stringify(history.entries.map((e) => e.change)) : text;
    expect(told.includes(own), own).toBe(false);
  }
  const mine = JSON.stringify(await me.at<HistoryReply>('GET', `/sources/${ids[1]}/history`));
  expect(mine).toContain('Doubts');
  // It all goes back, by the hand of one who does not see it.
  await other.at('POST', `/changes/${changeId}/undo`);
  expect(await me.at('GET', `/sources/${ids[1]}`)).toMatchObject({ starred: false, reading: null });
  expect(await me.at('GET', `/sources/${ids[0]}`)).toMatchObject({ starred: true, reading: 'reading' });
});

test('nobody asks for what another has starred, read or filed for themselves, nor learns that they changed something', async () => {
  const doubts = await make(me, 'Doubts', { mine: true });
  await file(me, doubts, ids.slice(0, 1));
  const { changeId } = await me.at<Changed>('POST', '/stars', { ids: ids.slice(0, 1), present: true });
  const w = `/w/${me.workspace}`;
  for (const spied of [
    `star ${me.info.userId}=yes`,
    `reading ${me.info.userId}=read`,
    `in ${me.info.userId}=${doubts}`,
  ]) {
    const q = `include=${encodeURIComponent(spied)}`;
    const asked = [
      await other.call('GET', `${w}/sources?${q}`),
      await other.call('GET', `${w}/sources?exclude=${encodeURIComponent(spied)}`),
      await other.call('GET', `${w}/narrow?${q}`),
      await other.call('POST', `${w}/tagging`, { matching: { include: [spied] }, name: 'spied', present: true }),
      await other.call('POST', `${w}/summary`, { matching: { include: [spied] } }),
      await other.call('POST', `${w}/export`, { matching: { include: [spied] }, format: 'ris' }),
    ];
    expect(asked.map((r) => r.status)).toEqual(Array(asked.length).fill(400));
  }
  // As if there were no such change.
  for (const path of [`/changes/${changeId}/undo`, `/changes/${changeId}/sources`]) {
    const reply = await other.call<{ code: string }>(path.endsWith('undo') ? 'POST' : 'GET', w + path);
    expect([reply.status, reply.body.code]).toEqual([404, 'no_such_change']);
  }
  expect((await me.ask('', `&include=star=yes`)).total).toBe(1);
});
