/** Files that come in shares: kept until their gathering begins, for who sent them. */
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { ImportReport, Problem, Started, Uploaded } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('contributor');
});
afterAll(() => server.close());

const ris = (title: string): string => `TY  - BOOK\nTI  - ${title}\nER  - \n`;
async function send(titles: string[]): Promise<string[]> {
  const form = new FormData();
  for (const title of titles) form.append('file', new Blob([ris(title)]), `${title}.ris`);
  return (await me.at<Uploaded>('POST', '/uploads', form)).uploads;
}
const begin = (p: Person, uploads: string[]): ReturnType<Person['call']> =>
  p.call('POST', `/w/${me.workspace}/uploads/gathering`, { uploads, through: 'straight' });

test('eleven hundred files in shares are one gathering, in their order', async () => {
  const titles = Array.from({ length: 1100 }, (_, i) => `Sounding ${i}`);
  const uploads: string[] = [];
  for (let i = 0; i < titles.length; i += 200) uploads.push(...(await send(titles.slice(i, i + 200))));
  const { jobId, importId } = (await begin(me, uploads)).body as Started;
  await me.jobEnds(jobId);
  const report = await me.at<ImportReport>('GET', `/imports/${importId}`);
  expect([report.added, report.files.map((f) => f.name)]).toEqual([1100, titles.map((t) => `${t}.ris`)]);
});

test('more than a thousand go in one request too', async () => {
  expect(await send(Array.from({ length: 1100 }, (_, i) => `Ebb ${i}`))).toHaveLength(1100);
}, 30_000);

test('of two who begin the same gathering one is told that the files are not there', async () => {
  const uploads = await send(['Gauge']);
  const both = await Promise.all([begin(me, uploads), begin(me, uploads)]);
  expect(both.map((r) => r.status).sort()).toEqual([200, 400]);
});

test('what someone else sent is as if it had not been sent', async () => {
  const uploads = await send(['Quay']);
  const other = await server.person('contributor', me.workspace);
  const reply = await begin(other, uploads);
  expect([reply.status, (reply.body as Problem).detail]).toEqual([400, expect.stringContaining('was not sent')]);
});
