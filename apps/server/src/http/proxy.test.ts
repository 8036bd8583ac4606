/** Behind Debian's nginx, with the site of deploy/nginx.conf as it is: only names, ports and the certificate are the test's. */
import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { get, type IncomingMessage } from 'node:http';
import { request } from 'node:https';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { text } from 'node:stream/consumers';
import { setTimeout } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Problem } from '@pandecta/contract';
import { NGINX } from '../../../../scripts/lib/debian.mjs';
import { freePort } from '../../../../scripts/lib/ports.mjs';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

const SITE = readFileSync(fileURLToPath(new URL('../../../../deploy/nginx.conf', import.meta.url)), 'utf8');
const RIGHT = 'a long enough password';

let server: TestServer;
let me: Person;
let nginx: ChildProcess;
let folder: string;
let tls: number;
let plain: number;
beforeAll(async () => {
  server = await startTestServer({ trustProxy: '127.0.0.1', secureCookies: true });
  me = await server.person('contributor');
  folder = mkdtempSync(join(tmpdir(), 'pandecta-proxy-'));
  [tls, plain] = [await freePort(), await freePort()];
  const key = join(folder, 'key.pem');
  const certificate = join(folder, 'certificate.pem');
  // openssl-req(1): a certificate of its own, for a day.
  const subject = ['-subj', '/CN=library.example', '-addext', 'subjectAltName=DNS:library.example'];
  execFileSync(
    'openssl',
    ['req', '-x509', '-newkey', 'rsa:2048', '-nodes', '-days', '1', ...subject, '-keyout', key, '-out', certificate],
    { stdio: 'ignore' },
  );
  const site = SITE.replaceAll(/ +listen \[::\].*\n/g, '')
    .replace('listen 80;', `listen 127.0.0.1:${plain};`)
    .replace('listen 443 ssl;', `listen 127.0.0.1:${tls} ssl;`)
    .replace('/etc/ssl/certs/library.example.pem', certificate)
    .replace('/etc/ssl/private/library.example.key', key)
    .replace('127.0.0.1:4700', new URL(server.base).host);
  const temporary = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map((t) => `${t}_temp_path ${folder}/${t};`);
  const user = process.getuid!() === 0 ? 'user root;' : '';
  writeFileSync(
    join(folder, 'nginx.conf'),
    `${user} worker_processes 1; pid ${folder}/pid; error_log stderr; events {} http { access_log off; ${temporary.join(' ')} ${site} }`,
  );
  nginx = spawn(NGINX, ['-p', folder, '-c', join(folder, 'nginx.conf'), '-e', 'stderr', '-g', 'daemon off;'], {
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  await listens(tls);
});
afterAll(async () => {
  nginx.kill();
  await server.close();
  rmSync(folder, { recursive: true, force: true });
});

async function listens(port: number): Promise<void> {
  for (;;) {
    const there = await new Promise<boolean>((resolve) => {
      const socket = connect(port, '127.0.0.1', () => resolve(true)).on('error', () => resolve(false));
      socket.on('connect', () => socket.destroy());
    });
    if (there) return;
    await setTimeout(20);
  }
}

interface Told {
  status: number;
  headers: IncomingMessage['headers'];
  body: string;
}
/** By the proxy, from an address of this machine's own. */
const ask = (
  method: string,
  path: string,
  {
    body,
    from = '127.0.0.1',
    headers = {},
  }: { body?: Buffer | string; from?: string; headers?: Record<string, string> } = {},
): Promise<Told> =>
  new Promise((resolve, reject) => {
    const sent = request(
      {
        host: '127.0.0.1',
        port: tls,
        localAddress: from,
        servername: 'library.example',
        ca: readFileSync(join(folder, 'certificate.pem')),
        method,
        path: `/api${path}`,
        headers: {
          host: `library.example:${tls}`,
          ...(body !== undefined && { 'content-length': String(Buffer.byteLength(body)) }),
          ...headers,
        },
      },
      (response) =>
        void text(response).then(
          (body) => resolve({ status: response.statusCode!, headers: response.headers, body }),
          reject,
        ),
    );
    sent.on('error', reject);
    sent.end(body);
  });
const signIn = (password: string, from?: string, more: Record<string, string> = {}): Promise<Told> =>
  ask('POST', '/session', {
    body: JSON.stringify({ email: me.info.email, password }),
    ...(from && { from }),
    headers: { 'content-type': 'application/json', origin: `https://library.example:${tls}`, ...more },
  });
const mine = (): Record<string, string> => ({ cookie: me.cookie, 'x-csrf-token': me.info.csrf });

test('the cookie goes over TLS alone, and of the name alone it is said that it does', async () => {
  const reply = await signIn(RIGHT);
  expect(reply.status).toBe(200);
  expect(reply.headers['set-cookie']![0]).toMatch(/HttpOnly.*Secure.*SameSite=Strict|HttpOnly; Secure/);
  expect(reply.headers['strict-transport-security']).toBe('max-age=15552000');
  const led = await new Promise<IncomingMessage>((resolve) =>
    get({ host: '127.0.0.1', port: plain, headers: { host: 'library.example' } }, resolve),
  );
  led.resume();
  expect([led.statusCode, led.headers.location]).toEqual([301, 'https://library.example/']);
});

test('who guesses from one address makes nobody at another wait, and changes nothing by saying they are elsewhere', async () => {
  const guesses = [];
  for (let i = 0; i < 6; i += 1)
    guesses.push((await signIn('wrong', '127.0.0.2', { 'x-forwarded-for': `192.0.2.${i}` })).status);
  expect(guesses).toEqual([401, 401, 401, 401, 401, 429]);
  expect((await signIn(RIGHT, '127.0.0.3')).status).toBe(200);
});

test('a page of another site is refused, whatever it says of where it came by', async () => {
  const there = { origin: 'https://elsewhere.example' };
  for (const more of [there, { ...there, 'x-forwarded-host': 'elsewhere.example' }])
    expect((JSON.parse((await signIn(RIGHT, '127.0.0.1', more)).body) as Problem).code).toBe('forged');
});

test('a file of several megabytes goes through', async () => {
  const content = `%comment ${'x'.repeat(5_000_000)}\n@book{a, title={Gauge}}`;
  const body = `--B\r\ncontent-disposition: form-data; name="file"; filename="a.bib"\r\n\r\n${content}\r\n--B--\r\n`;
  const headers = { ...mine(), 'content-type': 'multipart/form-data; boundary=B' };
  expect((await ask('POST', `/w/${me.workspace}/imports`, { body, headers })).status).toBe(200);
});

test('the stream of news is told at once', async () => {
  const first = await new Promise<string>((resolve, reject) => {
    const sent = request(
      {
        host: '127.0.0.1',
        port: tls,
        rejectUnauthorized: false,
        path: `/api/w/${me.workspace}/live`,
        headers: { host: `library.example:${tls}`, ...mine() },
      },
      (response) =>
        response.once('data', (d: Buffer) => {
          resolve(d.toString());
          sent.destroy();
        }),
    );
    sent.on('error', reject);
    sent.end();
  });
  expect(first).toContain('retry: 1000');
});
