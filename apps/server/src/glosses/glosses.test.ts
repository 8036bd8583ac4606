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
    { id: gloss, text: 'Argues from the ledgers alone', by: 'A contributor', at: expect.any(String) as string },
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

test('one without text is refused, and a reader writes none', async () => {
  const empty = await me.call<Problem>('POST', `/w/${me.workspace}/sources/${source}/glosses`, { text: '  ' });
  expect([empty.status, empty.body.detail]).toEqual([400, expect.stringContaining('a gloss has some text') as string]);
  const reader = await server.person('reader', me.workspace);
  expect((await reader.call('POST', `/w/${me.workspace}/sources/${source}/glosses`, { text: 'x' })).status).toBe(403);
});
