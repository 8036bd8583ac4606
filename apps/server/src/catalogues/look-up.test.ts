/** What is pasted and waits, looked up in the catalogues: at once, or on request. */
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { Changed, IntakeDetail, IntakePage, JobList, SourceDetail, Started } from '@pandecta/contract';
import { modsOf } from '@pandecta/core/formats';
import type { SourceRecord } from '@pandecta/core/source';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

const ARTICLE: SourceRecord = {
  type: 'article-journal',
  title: 'Sediment starvation behind permanently closed tidal barriers',
  author: [{ family: 'Vance', given: 'Solveig' }],
  'container-title': 'Coastal Processes',
  volume: '41',
  issue: '3',
  page: '311-328',
  ISSN: '1050-124X',
  DOI: '10.5555/cp.2011.41',
  issued: { 'date-parts': [[2011]] },
};
const CASE: SourceRecord = {
  type: 'legal_case',
  title: 'Okonjo v Port of Northmere',
  'container-title': 'Estuary Reports',
  volume: '12',
  page: '114',
  issued: { 'date-parts': [[1987]] },
};

let outside: Server;
let server: TestServer;
let steward: Person;
/** What the catalogue has, and what it was asked. */
let shelf: SourceRecord[];
let asked: string[];
/** What happens while it is asked. */
let meanwhile: () => Promise<unknown>;
beforeAll(async () => {
  outside = createServer(async (request, response) => {
    await meanwhile();
    asked.push(new URL(request.url!, 'http://x').searchParams.get('query')!);
    const records = shelf.map((record, i) => `<record><recordData>${modsOf({ record, subjects: [] }, `S${i}`)}</recordData></record>`); // prettier-ignore
    response.end(
      `<searchRetrieveResponse xmlns="http://www.loc.gov/zing/srw/"><numberOfRecords>${shelf.length}</numberOfRecords><records>${records.join('')}</records></searchRetrieveResponse>`,
    );
  });
  await new Promise<void>((done) => outside.listen(0, '127.0.0.1', done));
  server = await startTestServer({ inside: '127.0.0.1' });
});
beforeEach(async () => {
  [shelf, asked] = [[ARTICLE, CASE], []];
  meanwhile = async () => {};
  steward = await server.person('steward');
  const address = `http://127.0.0.1:${(outside.address() as AddressInfo).port}/`;
  await steward.at('POST', '/catalogues', { name: 'Shoreline Index', protocol: 'sru-1.2', address });
});
afterAll(async () => {
  await server.close();
  outside.close();
});

async function bring(text: string): Promise<SourceDetail[]> {
  const { jobId } = await steward.at<Started>('POST', '/gatherings', { text });
  await steward.jobEnds(jobId);
  const { rows } = await steward.at<IntakePage>('GET', '/intake');
  return Promise.all(rows.map(async ({ id }) => (await steward.at<IntakeDetail>('GET', `/intake/${id}`)).source));
}
const again = async ({ id }: SourceDetail): Promise<SourceDetail> =>
  (await steward.at<IntakeDetail>('GET', `/intake/${id}`)).source;

test('an ISSN with volume and page is looked up as it comes in', async () => {
  const [one] = await bring('1050-124X 41(3), 311');
  expect(asked).toEqual(['bath.issn="1050-124X" and cql.serverChoice all "41 311"']);
  expect(one!.record).toMatchObject({ title: ARTICLE.title, DOI: ARTICLE.DOI });
});

test('one that is mended or taken in while many are looked up keeps that, and costs the others nothing', async () => {
  shelf = [];
  const list = await bring(`${PRINTED}\n\n(1987) 12 Est R 114`);
  shelf = [ARTICLE, CASE];
  let times = 0;
  meanwhile = async () => {
    times += 1;
    if (times > 1) return;
    // The first that is asked for is mended, as by another member; both are still being asked for.
    await steward.at('PATCH', `/sources/${list[0]!.id}`, {
      fields: { DOI: '10.5555/mended', title: 'Mended meanwhile' },
    });
  };
  const { jobId } = await steward.at<Changed>('POST', '/looking-up', { ids: list.map((s) => s.id) });
  await steward.jobEnds(jobId!);
  const { jobs } = await steward.at<JobList>('GET', '/jobs');
  expect(jobs.find((j) => j.id === jobId)!.state).toBe('done');
  const { rows } = await steward.at<IntakePage>('GET', '/intake');
  expect(rows.every((r) => r.lookedUp === 'found' || r.lookedUp === 'not found')).toBe(true);
  const mended = rows.find((r) => r.id === list[0]!.id)!;
  expect(mended.record.title).not.toBe('');
});

test('so is the report citation of a case, which finds its parties', async () => {
  const [one] = await bring('(1987) 12 Est R 114');
  expect(one!.record).toMatchObject({ type: 'legal_case', title: CASE.title });
});

const PRINTED =
  'Vance S. Sediment starvation behind permanently closed tidal barriers. Coast. Proc. 2011;41(3):311-28.';

test('a printed reference is matched on request: what it lacks is filled, and says that a catalogue had it', async () => {
  const [one] = await bring(PRINTED);
  expect([one!.record.DOI, asked]).toEqual([undefined, []]);
  await steward.at('POST', `/intake/${one!.id}/look-up`, {});
  const { record, provenance } = await again(one!);
  expect(record).toMatchObject({ DOI: ARTICLE.DOI, author: ARTICLE.author, 'container-title': 'Coastal Processes' });
  // The pages stand as they were read.
  expect(record.page).toBe('311-28');
  expect([provenance.DOI, provenance.page]).toMatchObject([{ from: 'catalogue' }, { from: 'printed reference' }]);
});

test('many are looked up as a job that says what came of them, and undoes as one step', async () => {
  const list = await bring(`${PRINTED}\n\nQuill T. A harbour nobody has catalogued yet. Harb. Hist. 1998;3(2):17-29.`);
  const { jobId } = await steward.at<Changed>('POST', '/looking-up', { ids: list.map((s) => s.id) });
  await steward.jobEnds(jobId!);
  const { jobs } = await steward.at<JobList>('GET', '/jobs');
  const job = jobs.find((j) => j.id === jobId)!;
  expect(job).toMatchObject({ state: 'done', says: 'Looked up 2: 1 found, 1 not found' });
  const vance = list.find((s) => /^Sediment/.test(s.record.title!))!;
  expect((await again(vance)).record.DOI).toBe(ARTICLE.DOI);
  await steward.at('POST', `/changes/${job.changeId}/undo`, {});
  expect((await again(vance)).record.DOI).toBeUndefined();
});

test('where nobody answers that is told, and nothing is changed', async () => {
  // Whoever did not answer is left in peace for a while: another address, which no other test asks.
  steward = await server.person('steward');
  const address = 'http://127.0.0.1:9/';
  await steward.at('POST', '/catalogues', { name: 'Shoreline Index', protocol: 'sru-1.2', address });
  const [one] = await bring(PRINTED);
  const done = await steward.at<Changed>('POST', `/intake/${one!.id}/look-up`, {});
  expect(done).toMatchObject({ changeId: null, says: 'No answer; try again later' });
});

test('a work that is only like it gives it nothing', async () => {
  shelf = [{ ...ARTICLE, title: 'Sediment starvation behind tidal barriers: a reply', author: [{ family: 'Quill' }] }];
  const [one] = await bring(PRINTED);
  const done = await steward.at<Changed>('POST', `/intake/${one!.id}/look-up`, {});
  expect(done.says).toBe('No catalogue has it');
});
