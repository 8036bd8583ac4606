/** What the registry of identifiers adds to a PDF that names its DOI, beside a registry of the test's own. */
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { SourceDetail } from '@pandecta/contract';
import { makePdf } from '../testing/pdf.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

const CSL_JSON = 'application/vnd.citationstyles.csl+json';
let registry: Server;
let server: TestServer;
let me: Person;
let answer: { status: number; item?: object };
const asked: { path: string; accept: string }[] = [];

beforeAll(async () => {
  registry = createServer((request, response) => {
    asked.push({ path: request.url!, accept: request.headers.accept ?? '' });
    response.writeHead(answer.status, { 'content-type': CSL_JSON }).end(JSON.stringify(answer.item ?? {}));
  });
  await new Promise<void>((resolve) => registry.listen(0, '127.0.0.1', resolve));
  server = await startTestServer({ registryUrl: `http://127.0.0.1:${(registry.address() as AddressInfo).port}/doi` });
});
beforeEach(async () => {
  asked.length = 0;
  me = await server.person('contributor');
});
afterAll(async () => {
  await server.close();
  registry.close();
});

const pdf = (doi: string): Promise<Uint8Array> =>
  makePdf([
    [
      'Silt in the lower reach',
      `https://doi.org/${doi}`,
      'What the gauges of the lower reach say of the silt that settled there.',
    ],
  ]);

const detail = async (): Promise<SourceDetail> =>
  me.at<SourceDetail>('GET', `/sources/${(await me.ask('')).rows[0]!.id}`);

test('the record is the registry’s, and each field says where it came from and how sure it is', async () => {
  answer = {
    status: 200,
    item: {
      type: 'article-journal',
      title: 'Silt in the lower reach of the Sallow',
      author: [{ family: 'Vance', given: 'Ines' }],
      issued: { 'date-parts': [[2008, 3]] },
      DOI: '10.5555/SILT.2008(4)',
    },
  };
  await me.import({ 'scan.pdf': await pdf('10.5555/silt.2008(4)') });
  expect(asked).toEqual([{ path: '/doi/10.5555/silt.2008(4)', accept: CSL_JSON }]);
  const { record, provenance } = await detail();
  expect(record).toMatchObject({ title: 'Silt in the lower reach of the Sallow', DOI: '10.5555/silt.2008(4)' });
  expect(provenance.title).toMatchObject({ from: 'identifier registry' });
  expect(provenance.title!.sure).toBeGreaterThan(0.9);
});

test('an answer for another work is not believed', async () => {
  answer = { status: 200, item: { type: 'book', title: 'Something else', DOI: '10.5555/other' } };
  await me.import({ 'scan.pdf': await pdf('10.5555/silt.2009') });
  expect((await detail()).record).toMatchObject({ title: 'Silt in the lower reach', DOI: '10.5555/silt.2009' });
});

test.each([404, 500])('with %i for an answer the document’s own word stands', async (status) => {
  answer = { status };
  await me.import({ 'scan.pdf': await pdf('10.5555/silt.2010') });
  expect((await detail()).record).toMatchObject({ title: 'Silt in the lower reach', DOI: '10.5555/silt.2010' });
});

test('a registry that answers nonsense is told of, and nothing is lost', async () => {
  answer = { status: 200, item: 'no object' as unknown as object };
  const report = await me.import({ 'scan.pdf': await pdf('10.5555/silt.2011') });
  expect(report.added).toBe(1);
  expect((await detail()).record).toMatchObject({ title: 'Silt in the lower reach' });
});
