import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { Clipped, GatherKeys, IntakePage, KeyHolder, MadeGatherKey } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let key: string;
beforeAll(async () => void (server = await startTestServer()));
beforeEach(async () => {
  me = await server.person('contributor');
  key = (await me.at<MadeGatherKey>('POST', '/gathering-keys', { name: 'laptop' })).key;
});
afterAll(() => server.close());

/** As the clipper asks: by the key, without a session, from a page of its own. */
async function byKey(method: string, path: string, body?: unknown, held = key, workspace = me.workspace) {
  const response = await fetch(`${server.base}/api/w/${workspace}${path}`, {
    method,
    headers: {
      authorization: `Bearer ${held}`,
      origin: 'chrome-extension://abcdefghijklmnop',
      ...(body ? { 'content-type': 'application/json' } : {}),
    },
    ...(body ? { body: JSON.stringify(body) } : {}),
  });
  return { status: response.status, body: (await response.json()) as Record<string, unknown> };
}
const PAGE = {
  address: 'https://packet.sallow.example/1',
  html: '<meta name="citation_title" content="Edges"><p>x</p>',
};

test('a key opens the ways in, and nothing else', async () => {
  expect((await byKey('GET', '/gathering-key')).body as unknown as KeyHolder).toEqual({
    name: me.info.name,
    workspace: expect.any(String),
  });
  const { status, body } = await byKey('POST', '/clips', PAGE);
  expect([status, body as unknown as Clipped]).toEqual([
    200,
    { importId: expect.any(String), title: 'Edges', missing: 'date and name of the site missing' },
  ]);
  expect((await byKey('GET', '/places')).status).toBe(200);
  for (const path of ['/sources', '/intake', '/gathering-keys', '/changes'])
    expect((await byKey('GET', path)).status).toBe(401);
  expect((await byKey('POST', '/undo', {})).status).toBe(403);
});

test('what it brings waits in the intake as its member’s', async () => {
  await byKey('POST', '/clips', PAGE);
  let page = await me.at<IntakePage>('GET', '/intake');
  while (!page.total) page = await me.at<IntakePage>('GET', '/intake');
  expect(page.rows[0]!.record).toMatchObject({ title: 'Edges', URL: PAGE.address });
  expect(page.batches[0]).toMatchObject({ title: 'Edges, from the browser', way: 'browser', by: me.info.name });
});

test('revoked, or of another workspace, or made up, it opens nothing', async () => {
  const other = await server.person('contributor');
  expect((await byKey('GET', '/gathering-key', undefined, key, other.workspace)).status).toBe(401);
  expect((await byKey('GET', '/gathering-key', undefined, 'x'.repeat(32))).status).toBe(401);
  const { keys } = await me.at<GatherKeys>('GET', '/gathering-keys');
  expect(keys).toEqual([expect.objectContaining({ name: 'laptop' })]);
  expect((await other.call('DELETE', `/w/${other.workspace}/gathering-keys/${keys[0]!.id}`)).status).toBe(404);
  expect((await me.at<GatherKeys>('DELETE', `/gathering-keys/${keys[0]!.id}`)).keys).toEqual([]);
  expect((await byKey('POST', '/clips', PAGE)).status).toBe(401);
});

test('of one who may gather no more it opens nothing', async () => {
  const reader = await server.person('reader');
  expect((await reader.call('POST', `/w/${reader.workspace}/gathering-keys`, { name: 'x' })).status).toBe(403);
});
