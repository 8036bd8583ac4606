import { beforeAll, expect, test } from 'vitest';
import type { Changed, JobList, Problem, SourceDetail, TakenPages } from '@pandecta/contract';
import { makePdf } from '../testing/pdf.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let whole: string;
let file: string;
let collection: string;
beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('contributor');
  collection = (await me.at<{ id: string }>('POST', '/collections', { name: 'Box 4' })).id;
  const leaves = [['Folder 15'], ['Sir, the boatmen beg leave'], ['Yours, Penhallow'], ['Madam, the gate']];
  await me.import({ 'box-4.pdf': await makePdf(leaves) }, collection);
  const [row] = (await me.ask('')).rows;
  [whole, file] = [row!.id, row!.fileId!];
});

const take = async (pages: number[], record: object): Promise<string> => {
  const done = await me.at<Changed>('POST', `/sources/${whole}/files/${file}/parts`, { pages, record });
  await me.jobEnds(done.jobId!);
  await server.settle();
  const { jobs } = await me.at<JobList>('GET', '/jobs');
  return jobs.find((j) => j.id === done.jobId)!.says ?? '';
};
const taken = async (): Promise<[string, number[]][]> =>
  (await me.at<TakenPages>('GET', `/sources/${whole}/files/${file}/parts`)).taken.map((t) => [t.title, t.pages]);

test('pages become a source of their own: their words, the collections, part of the whole, which stays and shows them', async () => {
  const letter = {
    type: 'personal_communication',
    title: 'The boatmen to the Commission',
    archive: 'County Record Office',
  };
  expect(await take([3, 2], letter)).toMatch(/^Took p\. 2–3 of “.*” as “The boatmen to the Commission”$/);
  const [row] = (await me.ask('boatmen penhallow')).rows.filter((r) => r.id !== whole);
  const made = await me.at<SourceDetail>('GET', `/sources/${row!.id}`);
  expect(made.files).toMatchObject([{ pages: 2, state: 'text' }]);
  expect(made.places.map((p) => p.id)).toEqual([collection]);
  expect(made.record).toMatchObject(letter);
  expect(await taken()).toEqual([['The boatmen to the Commission', [2, 3]]]);
  const related = await me.at<{ relations: { as: string; page: string }[] }>('GET', `/sources/${row!.id}/relations`);
  expect(related.relations).toMatchObject([{ as: 'part of', page: '2–3' }]);
  expect((await me.at<SourceDetail>('GET', `/sources/${whole}`)).files[0]!.pages).toBe(4);
});

test('taking them is undone as one step, and the whole shows them no more', async () => {
  await take([4], { type: 'personal_communication', title: 'To a lady' });
  expect((await taken()).map(([title]) => title)).toContain('To a lady');
  await me.at('POST', '/undo');
  expect([(await taken()).map(([title]) => title), await me.titles('title:lady')]).toEqual([
    ['The boatmen to the Commission'],
    [],
  ]);
});

test('pages there are none of, and a record without a kind, are refused with what is wrong', async () => {
  const refused = async (body: object): Promise<[number, string]> => {
    const reply = await me.call<Problem>('POST', `/w/${me.workspace}/sources/${whole}/files/${file}/parts`, body);
    return [reply.status, reply.body.detail ?? ''];
  };
  expect(await refused({ pages: [9], record: { type: 'letter', title: 'x' } })).toEqual([
    400,
    expect.stringMatching(/no page 9/),
  ]);
  expect(await refused({ pages: [1], record: { title: 'x' } })).toEqual([
    400,
    expect.stringMatching(/kind is missing/),
  ]);
  expect((await refused({ pages: [], record: { type: 'book' } }))[0]).toBe(400);
});
