import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { Changed, DocumentReply, SourceDetail } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';
import { makePdf } from '../testing/pdf.ts';

let server: TestServer;
let me: Person;
let id: string;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  me = await server.person('contributor');
  await me.at('POST', '/sources', { record: { type: 'book', title: 'Silt' } });
  id = (await me.ask('')).rows[0]!.id;
});
const source = (): Promise<SourceDetail> => me.at<SourceDetail>('GET', `/sources/${id}`);
const names = async (): Promise<string[]> => (await source()).files.map((f) => f.name);
const fileOf = async (name: string): Promise<string> => (await source()).files.find((f) => f.name === name)!.id;
async function add(name: string, content: Uint8Array, instead?: string): Promise<Changed> {
  const form = new FormData();
  if (instead) form.append('instead', instead);
  form.append('file', new Blob([content as unknown as string]), name);
  const done = await me.at<Changed>('POST', `/sources/${id}/files`, form);
  if (done.jobId) await me.jobEnds(done.jobId);
  await server.settle();
  return done;
}
const words = (of: string): Promise<Uint8Array> => makePdf([[`The ${of} of the lower gate`]]);

test('a PDF is added to a source that is there, and its words are found', async () => {
  await add('hours.pdf', await words('keeper'));
  expect((await source()).files).toMatchObject([{ name: 'hours.pdf', pages: 1, state: 'text', main: false }]);
  expect(await me.titles('keeper')).toEqual(['Silt']);
  await me.at('POST', '/undo');
  expect(await names()).toEqual([]);
});

test('one is put in place of another: what it replaces is found no more, and it is opened first where that was', async () => {
  await add('first.pdf', await words('keeper'));
  const first = await fileOf('first.pdf');
  await me.at('PATCH', `/sources/${id}/files/${first}`, { main: true });
  await add('second.pdf', await words('warden'), first);
  expect((await source()).files).toMatchObject([{ name: 'second.pdf', main: true }]);
  expect([await me.titles('keeper'), await me.titles('warden')]).toEqual([[], ['Silt']]);
  await me.at('POST', '/undo');
  expect((await source()).files).toMatchObject([{ name: 'first.pdf', main: true }]);
});

test('of several the one that was chosen is opened first; renamed it keeps its pages', async () => {
  await add('a.pdf', await words('keeper'));
  await add('b.pdf', await words('warden'));
  const b = await fileOf('b.pdf');
  await me.at('PATCH', `/sources/${id}/files/${b}`, { main: true });
  expect([await names(), (await me.ask('')).rows[0]!.fileId]).toEqual([['b.pdf', 'a.pdf'], b]);
  const { says } = await me.at<Changed>('PATCH', `/sources/${id}/files/${b}`, { name: 'Warden.pdf' });
  expect([says, await names()]).toEqual(['Renamed b.pdf to Warden.pdf', ['Warden.pdf', 'a.pdf']]);
});

test('a link stands among the files and leads to its address; what is no web address is refused', async () => {
  await me.at('POST', `/sources/${id}/links`, { address: 'https://archive.example/box/4' });
  expect((await source()).files).toMatchObject([
    { name: 'archive.example/box/4', address: 'https://archive.example/box/4' },
  ]);
  expect((await me.ask('')).rows[0]!.fileId).toBeNull();
  for (const address of ['javascript:alert(1)', 'file:///etc/passwd', 'x'])
    expect((await me.call('POST', `/w/${me.workspace}/sources/${id}/links`, { address })).status).toBe(400);
});

test('what is no document is kept as it is, and taken away without loss', async () => {
  await add('data.csv', Buffer.from('a,b\n1,2\n'));
  const file = await fileOf('data.csv');
  const removed = await me.at<Changed>('DELETE', `/sources/${id}/files/${file}`);
  expect([removed.says, await names()]).toEqual(['Detached data.csv', []]);
  await me.at('POST', `/changes/${removed.changeId}/undo`);
  expect(await names()).toEqual(['data.csv']);
});

test('a text is kept with a page made of it, which is opened, searched and marked', async () => {
  await add('brief.txt', Buffer.from('The keeper shut it.\n\nNobody said who opens it <again>.\n'));
  expect((await source()).files.map((f) => [f.name, f.state])).toEqual([
    ['brief (for reading).html', 'text'],
    ['brief.txt', 'other'],
  ]);
  expect(await me.titles('"who opens it"')).toEqual(['Silt']);
  const file = await fileOf('brief (for reading).html');
  const at = `/sources/${id}/files/${file}`;
  const { senses } = await me.at<DocumentReply>('GET', at);
  const quote = { exact: 'Nobody said', prefix: '', suffix: ' who' };
  await me.at('POST', `${at}/marks`, { page: 1, sense: senses[0]!.id, quote, rects: [] });
  expect((await me.at<DocumentReply>('GET', at)).marks).toMatchObject([{ quote, page: 1, unplaced: false }]);
});
