/** Requests that were made to take long: each is refused before it does. */
import { connect } from 'node:net';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Problem } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';
import { refuseUnwieldy } from './json.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('contributor');
});
afterAll(() => server.close());

const post = (path: string, body: string, headers: Record<string, string> = {}): Promise<Response> =>
  fetch(`${server.base}/api${path}`, {
    method: 'POST',
    body,
    headers: { 'content-type': 'application/json', ...headers },
  });
const mine = (): Record<string, string> => ({ cookie: me.cookie, 'x-csrf-token': me.info.csrf });
const keys = (n: number): string => `{${Array.from({ length: n }, (_, i) => `"k${i}":1`).join(',')}}`;

describe('without a session', () => {
  test.each([
    ['unknown keys', keys(60_000)],
    ['open brackets', '['.repeat(1_000_000)],
  ])('a body of %s is not read at all where one must be signed in, and only so far where not', async (_, body) => {
    expect((await post(`/w/${me.workspace}/tagging`, body)).status).toBe(401);
    expect((await post('/session', body)).status).toBe(413);
    expect((await post('/session', body.slice(0, 10_000))).status).toBe(400);
  });

  test('a body that never ends keeps nobody waiting for the answer', async () => {
    const { hostname, port } = new URL(server.base);
    const socket = connect(Number(port), hostname);
    socket.write(
      `POST /api/w/${me.workspace}/tagging HTTP/1.1\r\nhost: ${hostname}\r\ncontent-type: application/json\r\ncontent-length: 9000000\r\n\r\n{`,
    );
    const answer = await new Promise<string>((resolve) => socket.once('data', (d) => resolve(d.toString())));
    expect(answer).toMatch(/^HTTP\/1.1 401/);
    socket.destroy();
  });
});

describe('of a member', () => {
  test('a body of unknown keys is refused at the first, without the others in the answer', async () => {
    const reply = await post(`/w/${me.workspace}/tagging`, keys(9_000), mine());
    const problem = (await reply.json()) as Problem;
    expect([reply.status, problem.detail]).toEqual([400, 'The request is not as it should be: there is no field “k0”']);
  });

  test('one nested deeply, or of very many keys, is refused before it is read', async () => {
    for (const [body, says] of [
      [`{"ids":${'['.repeat(500_000)}`, 'nested more than 64 deep'],
      [keys(60_000), 'more than 10,000 keys'],
    ] as const) {
      const reply = await post(`/w/${me.workspace}/tagging`, body, mine());
      expect([reply.status, ((await reply.json()) as Problem).detail]).toEqual([
        400,
        expect.stringContaining(says) as string,
      ]);
    }
  });

  test('one larger than its route takes is refused with words', async () => {
    const reply = await post(`/w/${me.workspace}/collections`, JSON.stringify({ name: 'x'.repeat(20_000) }), mine());
    expect([reply.status, ((await reply.json()) as Problem).code]).toEqual([413, 'body_too_large']);
  });

  test('a hundred thousand ids are as many as may be, and are taken', async () => {
    const ids = Array.from({ length: 100_000 }, (_, i) => `018f0000-0000-7000-8000-${String(i).padStart(12, '0')}`);
    const reply = await post(`/w/${me.workspace}/summary`, JSON.stringify({ ids }), mine());
    expect([reply.status, await reply.json()]).toEqual([200, expect.objectContaining({ count: 0 })]);
  });
});

test.each([[[]], [[{ q: 'x' }]], ['x'], [7]])('where a shape is wanted, %j is refused by name', async (matching) => {
  const reply = await me.call<Problem>('POST', `/w/${me.workspace}/tagging`, { matching, name: 'used', present: true });
  expect([reply.status, reply.body.detail]).toEqual([400, expect.stringContaining('matching must be an object')]);
});

test('brackets, colons and quotation marks within texts count for nothing', () => {
  const text = '[{:"\\'.repeat(20_000);
  expect(() => refuseUnwieldy(JSON.stringify({ note: text, more: [[{ a: text }]] }))).not.toThrow();
});

test('the type of a problem leads to a page that tells of it', async () => {
  const { body } = await me.call<Problem>('GET', `/w/${me.workspace}/sources/42`);
  const page = await (await fetch(new URL(body.type, server.base))).text();
  expect(page).toContain(`<section id="${body.code}">`);
});
