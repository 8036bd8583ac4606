/** Requests that were made to take long: each is refused before it does. */
import { connect } from 'node:net';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Problem } from '@pandecta/contract';
import { buildApp, type App } from '../composition/app.ts';
import { makeLibrary } from '../testing/library.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';
import { refuseUnwieldy } from './json.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => {
  server = await startTestServer({ alone: true });
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
    expect([reply.status, problem.detail]).toEqual([400, 'Invalid request: there is no field “k0”']);
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

/** What there is to be named. */
let there: ReturnType<typeof makeLibrary> | undefined;

test.each([[[]], [[{ q: 'x' }]], ['x'], [7]])('where a shape is wanted, %j is refused by name', async (matching) => {
  const reply = await me.call<Problem>('POST', `/w/${me.workspace}/tagging`, { matching, name: 'used', present: true });
  expect([reply.status, reply.body.detail]).toEqual([400, expect.stringContaining('matching must be an object')]);
});

test.each([
  ['PATCH', '/sources/:source', { fields: {}, seen: null }, 'seen'],
  ['PATCH', '/collections/:collection', { name: null }, 'name'],
  ['PATCH', '/saved/:saved', { name: null }, 'name'],
  ['POST', '/tagging', { matching: null, name: 'used', present: true }, 'matching'],
])('%s %s: null is no value of what may only be left out', async (method, path, body, field) => {
  there ??= server.person('steward', me.workspace).then(makeLibrary);
  const ids = await there;
  const named = path.replace(/:(\w+)/, (_, name: string) => ids[name]!);
  const reply = await me.call<Problem>(method as 'POST', `/w/${me.workspace}${named}`, body);
  expect([reply.status, reply.body.detail]).toEqual([400, expect.stringContaining(field)]);
});

/** What is written to the server's port, byte by byte, and what comes back before the connection ends. */
const raw = (text: string | Buffer, port = new URL(server.base).port): Promise<string> =>
  new Promise((resolve, reject) => {
    const socket = connect(Number(port), '127.0.0.1');
    let answer = '';
    socket.on('data', (d) => (answer += d.toString()));
    socket.on('close', () => resolve(answer));
    socket.on('error', reject);
    socket.write(text);
  });
const problemIn = (answer: string): { status: number; problem: Problem } => ({
  status: Number(/^HTTP\/1\.1 (\d+)/.exec(answer)?.[1]),
  problem: JSON.parse(answer.slice(answer.indexOf('\r\n\r\n'))) as Problem,
});

describe('what cannot be read is refused with a problem document', () => {
  test.each(['/api/w/%', '/api/%F0%28', '/api/w/%E0%A4%A/sources', '/%c0%af'])('the address %s', async (path) => {
    const answer = await raw(`GET ${path} HTTP/1.1\r\nhost: x\r\nconnection: close\r\n\r\n`);
    expect(answer).toContain('application/problem+json');
    expect(problemIn(answer)).toMatchObject({ status: 400, problem: { code: 'invalid' } });
  });

  test('what is no HTTP', async () => {
    expect(problemIn(await raw('\x16\x03\x01 hello\r\n\r\n'))).toMatchObject({
      status: 400,
      problem: { code: 'invalid' },
    });
  });

  test('JSON that is none, without a word of it in the answer', async () => {
    const reply = await post(`/w/${me.workspace}/tagging`, '{"secret-of-mine', mine());
    const { detail } = (await reply.json()) as Problem;
    expect([reply.status, detail]).toEqual([400, 'Invalid request: it is not JSON']);
  });

  test('a body larger than its route takes is told how large it may be', async () => {
    const reply = await post('/session', `{"email":"${'x'.repeat(20_000)}"}`);
    const { code, detail } = (await reply.json()) as Problem;
    expect([code, detail]).toEqual(['body_too_large', expect.stringContaining('larger than the 16 KB this may be')]);
  });

  const form = (body: string | Buffer, type = 'multipart/form-data; boundary=B'): Promise<Response> =>
    fetch(`${server.base}/api/w/${me.workspace}/imports`, {
      method: 'POST',
      headers: { ...mine(), 'content-type': type },
      body: body as string,
    });
  const file = (name: string): string =>
    `--B\r\ncontent-disposition: form-data; name="file"; filename="${name}"\r\n\r\nTY  - BOOK\r\nTI  - x\r\nER  - \r\n`;
  test.each<[string, string, string]>([
    ['without its end', file('a.ris'), 'broken or ends too early'],
    [
      'that ends in the lines before a part',
      '--B\r\ncontent-disposition: form-data; name="f',
      'broken or ends too early',
    ],
    ['of nothing', '', 'No file came'],
    ['with a part that names nothing', '--B\r\n\r\nx\r\n--B--\r\n', ''],
    ['without a file', '--B\r\ncontent-disposition: form-data; name="x"\r\n\r\ny\r\n--B--\r\n', 'No file came'],
    [
      'with a destination that is no JSON',
      `--B\r\ncontent-disposition: form-data; name="destination"\r\n\r\n{{{\r\n${file('a.ris')}--B--\r\n`,
      'the destination is not JSON',
    ],
    [
      'with a field named after the language’s own',
      `--B\r\ncontent-disposition: form-data; name="__proto__"\r\n\r\ny\r\n--B--\r\n`,
      '',
    ],
  ])('a form %s', async (_, body, says) => {
    const reply = await form(body);
    expect([reply.status, ((await reply.json()) as Problem).detail]).toEqual([400, expect.stringContaining(says)]);
  });

  test('a form without a boundary, and one that is no form', async () => {
    for (const type of ['multipart/form-data', 'multipart/form-data; boundary=', 'application/json', 'text/plain'])
      expect([type, (await form('{}', type)).status]).toEqual([type, 400]);
  });

  test('a file whose name ends in the middle of a character, or is very long, comes in', async () => {
    for (const name of [`${'x'.repeat(254)}🙂.ris`, '🙂'.repeat(2000), '', '/', '../../x', 'a\u0000b', '\ud83d']) {
      const reply = await form(Buffer.from(`${file(name)}\r\n--B--\r\n`));
      expect([name, reply.status]).toEqual([name, 200]);
    }
  });
});

describe('who sends slowly', () => {
  const pace = { wholeMs: 300, everyMs: 150, leastBytes: 1000, headersMs: 300 };
  let slow: App;
  let port: string;
  beforeAll(async () => {
    slow = await buildApp({ ...server.app.services.config, port: 0 }, pace);
    port = new URL(await slow.app.listen({ host: '127.0.0.1', port: 0 })).port;
  });
  afterAll(() => slow.close());
  const head = (path: string, type: string): string =>
    `POST /api${path} HTTP/1.1\r\nhost: 127.0.0.1\r\ncookie: ${me.cookie}\r\nx-csrf-token: ${me.info.csrf}\r\ncontent-type: ${type}\r\ncontent-length: 5000\r\n\r\n`;

  test('and never ends a body of JSON is answered, and the connection ends', async () => {
    const answer = await raw(`${head(`/w/${me.workspace}/tagging`, 'application/json')}{"ids`, port);
    expect(problemIn(answer)).toMatchObject({ status: 408, problem: { code: 'too_late' } });
  });

  test('files, but fewer bytes than a line has, likewise', async () => {
    const begin = `${head(`/w/${me.workspace}/imports`, 'multipart/form-data; boundary=B')}--B\r\ncontent-disposition: form-data; name="file"; filename="a"\r\n\r\nTY`;
    expect(problemIn(await raw(begin, port))).toMatchObject({ status: 408, problem: { code: 'too_late' } });
  });
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
