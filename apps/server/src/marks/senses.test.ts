import { beforeAll, beforeEach, expect, test } from 'vitest';
import type { Changed, DocumentReply, HistoryEntry, MarksReply, Problem, SenseInfo } from '@pandecta/contract';
import { makePdf } from '../testing/pdf.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let source: string;
let file: string;
beforeAll(async () => {
  server = await startTestServer();
});
beforeEach(async () => {
  me = await server.person('steward');
  await me.import({ 'hours.pdf': await makePdf([['Hours of the lower gate', 'The keeper shut the gate at dusk.']]) });
  const [row] = (await me.ask('')).rows;
  [source, file] = [row!.id, row!.fileId!];
});

const senses = async (): Promise<SenseInfo[]> => (await me.at<{ senses: SenseInfo[] }>('GET', '/senses')).senses;
const names = async (): Promise<string[]> => (await senses()).map((s) => `${s.key ?? '-'} ${s.name}`);
const named = async (name: string): Promise<SenseInfo> => (await senses()).find((s) => s.name === name)!;
const mark = async (sense: string): Promise<string> =>
  (
    await me.at<Changed>('POST', `/sources/${source}/files/${file}/marks`, {
      page: 1,
      sense,
      quote: { exact: 'the gate', prefix: '', suffix: '' },
      rects: [],
    })
  ).id!;
const refused = async (method: string, path: string, body?: object): Promise<[number, string]> => {
  const reply = await me.call<Problem>(method, `/w/${me.workspace}${path}`, body);
  return [reply.status, reply.body.detail ?? ''];
};

test('a sense is added, renamed, retired and removed, and each of it is undone', async () => {
  const { id } = await me.at<Changed>('POST', '/senses', {
    name: 'Term',
    key: 5,
    colour: 'sky',
    says: 'A definition.',
  });
  expect((await named('Term')).says).toBe('A definition.');
  await me.at('PATCH', `/senses/${id}`, { name: 'Definition', key: 5, colour: 'sky' });
  await me.at('PATCH', `/senses/${id}`, { name: 'Definition', key: 5, colour: 'sky', retired: true });
  expect(await named('Definition')).toMatchObject({ retired: true, key: null });
  await me.at('DELETE', `/senses/${id}`);
  expect(await names()).toEqual(['1 Claim', '2 Evidence', '3 Method', '4 Doubt']);
  for (const left of ['- Definition', '5 Definition', '5 Term']) {
    await me.at('POST', '/undo');
    expect((await names()).at(-1)).toBe(left);
  }
  const { entries } = await me.at<{ entries: HistoryEntry[] }>('GET', '/changes');
  expect(entries.map((e) => e.says)).toEqual(
    expect.arrayContaining(['Made the sense “Term”', 'Renamed the sense “Term” to “Definition”']),
  );
});

test('senses are put in another order, by which they get their keys', async () => {
  const order = (await senses()).map((s) => s.id).reverse();
  await me.at('POST', '/senses/order', { senses: order });
  expect(await names()).toEqual(['1 Doubt', '2 Method', '3 Evidence', '4 Claim']);
  expect(await refused('POST', '/senses/order', { senses: order.slice(1) })).toEqual([
    400,
    expect.stringMatching(/each sense/),
  ]);
  await me.at('POST', '/undo');
  expect((await names())[0]).toBe('1 Claim');
});

test('marks of a sense that is merged into another count as of that one, in every list, until it is undone', async () => {
  const [doubt, claim] = [await named('Doubt'), await named('Claim')];
  const id = await mark(doubt.id);
  await me.at('POST', `/senses/${doubt.id}/merge`, { into: claim.id });
  const opened = await me.at<DocumentReply>('GET', `/sources/${source}/files/${file}`);
  expect(opened.marks.find((m) => m.id === id)!.sense).toBe(claim.id);
  expect([(await me.ask('sense:Claim')).total, (await me.ask('sense:Doubt')).total]).toEqual([1, 0]);
  expect((await me.at<MarksReply>('POST', '/marks/list', {})).senses).toEqual([
    { key: claim.id, name: 'Claim', count: 1 },
  ]);
  // One that was merged is none to merge another into; what was merged into one goes along with it.
  const method = await named('Method');
  expect((await refused('POST', `/senses/${method.id}/merge`, { into: doubt.id }))[0]).toBe(400);
  await me.at('POST', `/senses/${claim.id}/merge`, { into: method.id });
  expect((await me.ask('sense:Method')).total).toBe(1);
  await me.at('POST', '/undo');
  await me.at('POST', '/undo');
  expect([(await me.ask('sense:Claim')).total, (await me.ask('sense:Doubt')).total]).toEqual([0, 1]);
});

test('a sense that marks have is not removed, and two are not called the same or chosen by one key', async () => {
  const claim = await named('Claim');
  const id = await mark(claim.id);
  await me.at('DELETE', `/marks/${id}`);
  expect(await refused('DELETE', `/senses/${claim.id}`)).toEqual([
    409,
    expect.stringMatching(/“Claim” is that of 1 mark/),
  ]);
  expect(await refused('POST', '/senses', { name: 'claim', key: 9, colour: 'sky' })).toEqual([
    400,
    expect.stringMatching(/already/),
  ]);
  expect(await refused('POST', '/senses', { name: 'Term', key: 1, colour: 'sky' })).toEqual([
    400,
    expect.stringMatching(/key 1 chooses “Claim”/),
  ]);
  const reader = await server.person('reader', me.workspace);
  const reply = await reader.call('POST', `/w/${me.workspace}/senses`, { name: 'Term', key: 9, colour: 'sky' });
  expect(reply.status).toBe(403);
});
