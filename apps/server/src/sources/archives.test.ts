import { afterAll, beforeAll, expect, test } from 'vitest';
import type { ArchivesReply, Changed } from '@pandecta/contract';
import { makePdf } from '../testing/pdf.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('steward');
});
afterAll(() => server.close());
const add = (title: string, more: object): Promise<Changed> =>
  me.at('POST', '/sources', { record: { type: 'manuscript', title, ...more } });
const archives = async (person = me): Promise<ArchivesReply['sources']> =>
  (await person.at<ArchivesReply>('GET', '/archives')).sources;

test('sources of an archive stand in its order, box 2 before box 10, with what was scanned and taken of them', async () => {
  const kept = { archive: 'Quay Archive', archive_collection: 'Harbour papers' };
  await add('Tenth', { ...kept, archive_location: 'Box 10, folder 1' });
  const { id } = await add('Second', { ...kept, archive_location: 'Box 2, folder 12' });
  await add('First', { ...kept, archive_location: 'Box 2, folder 3' });
  await add('Printed', { publisher: 'Quillback Press' });
  const form = new FormData();
  form.append('file', new Blob([Buffer.from(await makePdf([['One'], ['Two'], ['Three']]))]), 'folder.pdf');
  await me.jobEnds((await me.at<Changed>('POST', `/sources/${id!}/files`, form)).jobId!);
  expect((await archives()).map((s) => [s.title, s.pages])).toEqual([['First', 0], ['Second', 3], ['Tenth', 0]]); // prettier-ignore
  const file = (await me.ask('title:Second')).rows[0]!.fileId!;
  const taken = await me.at<Changed>('POST', `/sources/${id!}/files/${file}/parts`, { pages: [1, 3], record: { type: 'personal_communication', title: 'Part' } }); // prettier-ignore
  await me.jobEnds(taken.jobId!);
  expect((await archives()).find((s) => s.title === 'Second')).toMatchObject({ pages: 3, taken: 2, sorted: 0 });
});

test('what is in the bin, or another workspace’s, is in no archive', async () => {
  const { id } = await add('Gone', { archive: 'Quay Archive' });
  await me.at('POST', '/presence', { ids: [id], to: 'bin' });
  expect((await archives()).map((s) => s.title)).not.toContain('Gone');
  expect(await archives(await server.person('steward'))).toEqual([]);
});
