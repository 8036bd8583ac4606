import { afterAll, beforeAll, expect, test } from 'vitest';
import sharp from 'sharp';
import type { Changed, DocumentReply } from '@pandecta/contract';
import { makePdf } from '../testing/pdf.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let at: string;
let sense: string;
beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('steward');
  await me.import({ 'hours.pdf': await makePdf([['Hours of the lower gate'], ['Second leaf']]) });
  const [row] = (await me.ask('')).rows;
  at = `/sources/${row!.id}/files/${row!.fileId!}`;
  sense = (await me.at<DocumentReply>('GET', at)).senses[0]!.id;
});
afterAll(() => server.close());
const mark = (more: object): Promise<Changed> =>
  me.at('POST', `${at}/marks`, { page: 1, sense, shape: 'region', quote: { exact: '', prefix: '', suffix: '' }, rects: [{ x0: 30, y0: 40, x1: 230, y1: 90 }], ...more }); // prettier-ignore

test('a region shows what stands in it, as large as it is drawn, and nothing of the rest', async () => {
  const { id } = await mark({});
  const picture = await me.bytes(`/marks/${id}/picture`);
  const { width, height } = await sharp(picture).metadata();
  expect([width, height]).toEqual([417, 104]);
  // The heading stands there: some of it is dark; on the empty page below nothing is.
  const empty = await mark({ rects: [{ x0: 30, y0: 300, x1: 230, y1: 350 }] });
  const darkest = async (png: Uint8Array): Promise<number> => (await sharp(png).stats()).channels[0]!.min;
  expect([await darkest(picture), await darkest(await me.bytes(`/marks/${empty.id}/picture`))]).toEqual([0, 255]);
});

test('of a mark on words, or of another’s own, there is no picture', async () => {
  const { id } = await mark({ shape: 'highlight', quote: { exact: 'Hours', prefix: '', suffix: '' } });
  expect((await me.call('GET', `/w/${me.workspace}/marks/${id}/picture`)).status).toBe(404);
  const own = await mark({ personal: true });
  const other = await server.person('contributor', me.workspace);
  expect((await other.call('GET', `/w/${me.workspace}/marks/${own.id}/picture`)).status).toBe(404);
});
