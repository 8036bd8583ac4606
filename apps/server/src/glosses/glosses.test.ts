import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { Changed, Glosses, HistoryEntry, Problem } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let other: Person;
let source: string;
let gloss: string;
beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('contributor');
  other = await server.person('contributor', me.workspace);
});
afterAll(() => server.close());

const add = async (title: string): Promise<string> =>
  (await me.at<Changed>('POST', '/sources', { record: { type: 'book', title } })).id!;
const write = async (text: string, of = source, person = me): Promise<string> =>
  (await person.at<Changed>('POST', `/sources/${of}/glosses`, { text })).id!;
const texts = async (of = source): Promise<string[]> =>
  (await me.at<Glosses>('GET', `/sources/${of}/glosses`)).glosses.map((g) => g.text);

beforeEach(async () => {
  source = await add('Tides');
  gloss = await write('Argues from the ledgers alone');
});

test('a gloss on a source is shown to all with who wrote it, rewritten, removed, and each is undone', async () => {
  const { glosses } = await other.at<Glosses>('GET', `/sources/${source}/glosses`);
  expect(glosses).toEqual([
    {
      id: gloss,
      text: 'Argues from the ledgers alone',
      by: 'A contributor',
      at: expect.any(String) as string,
      personal: false,
    },
  ]);
  await me.at('PATCH', `/glosses/${gloss}`, { text: 'Argues from the tide tables' });
  expect(await texts()).toEqual(['Argues from the tide tables']);
  await me.at('DELETE', `/glosses/${gloss}`);
  expect(await texts()).toEqual([]);
  for (const left of [['Argues from the tide tables'], ['Argues from the ledgers alone'], []]) {
    await me.at('POST', '/undo');
    expect(await texts()).toEqual(left);
  }
  const { entries } = await me.at<{ entries: HistoryEntry[] }>('GET', `/sources/${source}/history`);
  expect(entries.map((e) => e.says)).toEqual(
    expect.arrayContaining(['Wrote a gloss', 'Changed a gloss', 'Removed a gloss', 'Undone: Removed a gloss']),
  );
});

test('its words find the source, and it is asked for by having one', async () => {
  await write('Estuarine heterodoxy');
  await server.settle();
  expect(await me.titles('heterodoxy')).toEqual(['Tides']);
  expect(await me.titles('note:heterodoxy')).toEqual(['Tides']);
  expect((await me.ask('heterodoxy')).rows[0]!.hits).toEqual([
    expect.objectContaining({ where: expect.stringMatching(/gloss/i) as string, text: 'Estuarine heterodoxy' }),
  ]);
  expect((await me.ask('has:gloss title:Tides')).total).toBeGreaterThan(0);
});

test('on what became part of another it stands there, and is found there', async () => {
  const into = await add('Tides, the second edition');
  await write('Quenchless marginalia', source);
  await me.at('POST', '/merges', { into, sources: [source] });
  expect(await texts(into)).toEqual(['Argues from the ledgers alone', 'Quenchless marginalia']);
  await server.settle();
  expect(await me.titles('quenchless')).toEqual(['Tides, the second edition']);
  expect((await me.ask('quenchless')).rows[0]!.hits).toHaveLength(1);
  await me.at('PATCH', `/glosses/${gloss}`, { text: 'Argues from the tesselated mosaics' });
  await server.settle();
  expect(await me.titles('tesselated')).toEqual(['Tides, the second edition']);
});

test('who writes over another’s words is told, and nothing is lost', async () => {
  await other.at('PATCH', `/glosses/${gloss}`, { text: 'Theirs' });
  const reply = await me.call<Problem>('PATCH', `/w/${me.workspace}/glosses/${gloss}`, {
    text: 'Mine',
    seen: 'Argues from the ledgers alone',
  });
  expect([reply.status, reply.body.code]).toEqual([409, 'stale_edit']);
  expect(await texts()).toEqual(['Theirs']);
});

test('what others wrote into it since keeps it from being undone', async () => {
  await other.at('PATCH', `/glosses/${gloss}`, { text: 'Theirs' });
  const reply = await me.call<Problem>('POST', `/w/${me.workspace}/undo`);
  expect([reply.status, reply.body.detail]).toEqual([
    409,
    expect.stringContaining('worked on the gloss since') as string,
  ]);
});

test('one without text is refused, and a reader writes for themselves alone', async () => {
  const empty = await me.call<Problem>('POST', `/w/${me.workspace}/sources/${source}/glosses`, { text: '  ' });
  expect([empty.status, empty.body.detail]).toEqual([400, expect.stringContaining('a gloss has some text') as string]);
  const reader = await server.person('reader', me.workspace);
  const path = `/w/${me.workspace}/sources/${source}/glosses`;
  expect((await reader.call('POST', path, { text: 'x' })).status).toBe(403);
  expect((await reader.call('PATCH', `/w/${me.workspace}/glosses/${gloss}`, { text: 'x' })).status).toBe(403);
  const { id } = await reader.at<Changed>('POST', `/sources/${source}/glosses`, { text: 'x', personal: true });
  await reader.at('PATCH', `/glosses/${id}`, { text: 'Halophytes' });
  expect((await reader.call('POST', `/w/${me.workspace}/glosses/${id}/share`)).status).toBe(403);
  await server.settle();
  expect([await reader.titles('halophytes'), await me.titles('halophytes')]).toEqual([['Tides'], []]);
  await reader.at('POST', '/undo');
  expect((await reader.at<Glosses>('GET', `/sources/${source}/glosses`)).glosses).toHaveLength(2);
});

const writeOwn = async (text: string): Promise<string> =>
  (await me.at<Changed>('POST', `/sources/${source}/glosses`, { text, personal: true })).id!;
const sayings = async (person: Person, path: string): Promise<string[]> =>
  (await person.at<{ entries: HistoryEntry[] }>('GET', path)).entries.map((e) => e.says);

test('one that is for oneself alone is found by its words, with where they stand, and by nobody else', async () => {
  await writeOwn('Vexatious quillwort and ledgers');
  await server.settle();
  for (const asked of [
    'quillwort',
    '"vexatious quillwort"',
    'note:quillwort',
    'tides quillwort',
    'quillw*',
    'vexatious near/3 quillwort',
  ]) {
    expect([asked, await me.titles(asked)]).toEqual([asked, ['Tides']]);
    expect([asked, await other.titles(asked)]).toEqual([asked, []]);
  }
  expect(await me.titles('quillwort', '&look=notes')).toEqual(['Tides']);
  expect((await me.ask('quillwort')).rows[0]!.hits).toEqual([
    expect.objectContaining({ where: 'Gloss', text: 'Vexatious quillwort and ledgers' }),
  ]);
  // Of both the words stand in one everyone sees: what is one's own is not shown beside it to others.
  const [mine, theirs] = [(await me.ask('ledgers')).rows[0]!, (await other.ask('ledgers')).rows[0]!];
  expect([mine.hits.length, theirs.hits.length, theirs.moreHits]).toEqual([2, 1, 0]);
});

test('one that is for oneself alone is in nobody else’s list, history or answers', async () => {
  const own = await writeOwn('Zygomorphic');
  await server.settle();
  expect(await texts()).toEqual(['Argues from the ledgers alone', 'Zygomorphic']);
  expect((await other.at<Glosses>('GET', `/sources/${source}/glosses`)).glosses).toHaveLength(1);
  expect(await sayings(other, `/sources/${source}/history`)).toHaveLength(
    (await sayings(me, `/sources/${source}/history`)).length - 1,
  );
  for (const [method, path, body] of [
    ['PATCH', `/glosses/${own}`, { text: 'Mine' }],
    ['DELETE', `/glosses/${own}`, undefined],
    ['POST', `/glosses/${own}/share`, undefined],
  ] as const)
    expect((await other.call(method, `/w/${me.workspace}${path}`, body)).status).toBe(404);
  await me.at('DELETE', `/glosses/${gloss}`);
  expect([(await me.ask('has:gloss title:Tides')).total > (await other.ask('has:gloss title:Tides')).total]).toEqual([
    true,
  ]);
});

test('shown to all it is found by all, and theirs alone again when that is undone', async () => {
  const own = await writeOwn('Saprophytic');
  await me.at('POST', `/glosses/${own}/share`);
  await server.settle();
  expect(await other.titles('saprophytic')).toEqual(['Tides']);
  expect(await sayings(other, `/sources/${source}/history`)).toContain('Showed a gloss to all members');
  await me.at('POST', '/undo');
  await server.settle();
  expect([await me.titles('saprophytic'), await other.titles('saprophytic')]).toEqual([['Tides'], []]);
});
