/** Guessing is slowed down, and keeps nobody else out; the first account; one's own password. */
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import type { Problem, SessionInfo } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';
import { networkOf, waitAfter } from '../access/attempts.ts';

const RIGHT = 'a long enough password';
const TOKEN = 'of-this-start';

let server: TestServer;
let me: Person;
beforeAll(async () => {
  server = await startTestServer({ trustProxy: '127.0.0.1', firstToken: TOKEN });
});
beforeEach(async () => void (me = await server.person('reader')));
afterAll(() => server.close());

const run = (text: string): Promise<unknown> => server.app.services.database.pool.query(text);

/** Signing in from an address, by way of the proxy that is trusted. */
const from = (address: string, email: string, password: string): Promise<Response> =>
  fetch(`${server.base}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'x-forwarded-for': address },
    body: JSON.stringify({ email, password }),
  });
const guess = async (address: string, email: string, times: number): Promise<number[]> => {
  const statuses = [];
  for (let i = 0; i < times; i += 1) statuses.push((await from(address, email, 'wrong')).status);
  return statuses;
};
/** As though all that was tried had been tried twice: of ten one waits a minute, however slow the machine is. */
const twice = (): Promise<unknown> =>
  run('insert into sign_in_attempts (who, at) select who, clock_timestamp() from sign_in_attempts');
async function guessTen(address: string, email: string): Promise<void> {
  await guess(address, email, 5);
  await twice();
}
/** As though so many seconds had gone by. */
const later = (seconds: number): Promise<unknown> =>
  run(`update sign_in_attempts set at = at - interval '${seconds} seconds'`);

describe('whoever guesses', () => {
  test('waits between two tries after five of them, longer each time, and is told how long', async () => {
    // Each refusal takes a second. Where the machine stood still for as long as one waits, it is begun anew with another.
    for (let quick = false; !quick;) {
      me = await server.person('reader');
      const six = await guess('192.0.2.1', me.info.email, 6);
      const refused = await from('192.0.2.1', me.info.email, RIGHT);
      await later(3);
      const start = performance.now();
      const two = await guess('192.0.2.1', me.info.email, 2);
      const third = await from('192.0.2.1', me.info.email, 'wrong');
      quick = six.at(-1) === 429 && refused.status === 429 && performance.now() - start < 2900;
      if (!quick) continue;
      expect(six).toEqual([401, 401, 401, 401, 401, 429]);
      expect([refused.headers.get('retry-after'), ((await refused.json()) as Problem).detail]).toEqual([
        '1',
        'Those were many attempts with a wrong password. Try again in a second.',
      ]);
      expect(two).toEqual([401, 429]);
      expect(third.headers.get('retry-after')).toBe('3');
    }
    await later(5);
    expect((await from('192.0.2.1', me.info.email, RIGHT)).status).toBe(200);
  });

  test('waits a minute after ten', async () => {
    await guessTen('192.0.2.9', me.info.email);
    const refused = await from('192.0.2.9', me.info.email, RIGHT);
    expect(refused.status).toBe(429);
    // After nine it were thirty-two seconds.
    expect(Number(refused.headers.get('retry-after'))).toBeGreaterThan(32);
  });

  test('keeps the person they guess at from nothing', async () => {
    await guessTen('192.0.2.2', me.info.email);
    expect((await from('198.51.100.7', me.info.email, RIGHT)).status).toBe(200);
  });

  test('makes nobody else behind the same proxy wait', async () => {
    const other = await server.person('reader');
    await guessTen('192.0.2.3', me.info.email);
    expect((await from('192.0.2.3', other.info.email, RIGHT)).status).toBe(200);
  });

  test('gains nothing by signing in to an account of their own between', async () => {
    const own = await server.person('reader');
    await guessTen('192.0.2.4', me.info.email);
    expect((await from('192.0.2.4', own.info.email, RIGHT)).status).toBe(200);
    expect(await guess('192.0.2.4', me.info.email, 1)).toEqual([429]);
  });

  test('gains nothing by trying many at once', async () => {
    const all = await Promise.all(Array.from({ length: 8 }, () => from('192.0.2.5', me.info.email, 'wrong')));
    expect(all.filter((r) => r.status === 401).length).toBeLessThanOrEqual(5);
  });

  test('may have a whole network of addresses, and is one all the same', async () => {
    const address = (i: number): string => `2001:db8:1:1::${i.toString(16)}`;
    for (let i = 0; i < 5; i += 1) await guess(address(i), me.info.email, 1);
    await twice();
    expect(await guess(address(99), me.info.email, 1)).toEqual([429]);
    expect([networkOf('2001:db8:1:1::5'), networkOf('::ffff:192.0.2.1'), networkOf('192.0.2.1')]).toEqual([
      '2001:db8:1:1::',
      '192.0.2.1',
      '192.0.2.1',
    ]);
  });

  test('waits a minute at the most', () => {
    expect([0, 4, 5, 6, 9, 10, 1000].map(waitAfter)).toEqual([0, 0, 2, 4, 32, 60, 60]);
  });

  test('is counted by the address of the machine itself where no proxy is trusted', async () => {
    const { app } = server.app;
    const inject = async (remoteAddress: string, forwarded: string): Promise<number> =>
      (
        await app.inject({
          method: 'POST',
          url: '/api/session',
          remoteAddress,
          headers: { 'x-forwarded-for': forwarded },
          payload: { email: me.info.email, password: 'wrong' },
        })
      ).statusCode;
    const statuses = [];
    for (let i = 0; i < 5; i += 1) statuses.push(await inject('203.0.113.9', `192.0.2.${i}`));
    await twice();
    statuses.push(await inject('203.0.113.9', '192.0.2.9'));
    expect(statuses).toEqual([401, 401, 401, 401, 401, 429]);
  });

  test('a clock that was set back makes nobody wait', async () => {
    await guessTen('192.0.2.8', me.info.email);
    await run(`update sign_in_attempts set at = at + interval '3 hours'`);
    expect((await from('192.0.2.8', me.info.email, RIGHT)).status).toBe(200);
  });

  test('leaves no address and no name behind in what is counted', async () => {
    await guess('192.0.2.6', 'my-other-password@sallow.example', 1);
    const { rows } = (await run('select who from sign_in_attempts')) as { rows: { who: string }[] };
    expect(rows.map((r) => r.who).join()).not.toMatch(/192\.0\.2|sallow/);
  });
});

describe('one’s own password', () => {
  const change = (p: Person, old: string, password: string): Promise<{ status: number; body: Problem }> =>
    p.call<Problem>('PUT', '/session/password', { old, password });

  test('is changed by who knows it, and all other sessions end', async () => {
    const elsewhere = await from('192.0.2.20', me.info.email, RIGHT);
    const cookie = elsewhere.headers.get('set-cookie')!.split(';')[0]!;
    const there = (): Promise<Response> => fetch(`${server.base}/api/session`, { headers: { cookie } });
    expect((await there()).status).toBe(200);
    expect((await change(me, RIGHT, 'tide tables of the estuary')).status).toBe(204);
    expect((await there()).status).toBe(401);
    expect((await me.call('GET', '/session')).status).toBe(200);
    expect((await from('192.0.2.20', me.info.email, RIGHT)).status).toBe(401);
    expect((await from('192.0.2.20', me.info.email, 'tide tables of the estuary')).status).toBe(200);
  });

  test('is not changed by who does not, however often they try', async () => {
    const replies = [];
    const wrong = async (): Promise<unknown> => (await change(me, 'wrong', 'tide tables of the estuary')).body.code;
    for (let i = 0; i < 5; i += 1) replies.push(await wrong());
    await twice();
    replies.push(await wrong());
    expect(replies).toEqual([...Array<string>(5).fill('password_refused'), 'too_many_attempts']);
  });

  test('is not made shorter than twelve characters', async () => {
    expect((await change(me, RIGHT, 'short')).body.code).toBe('invalid');
  });
});

describe('the first account', () => {
  const post = (path: string, body: unknown): Promise<Response> =>
    fetch(`${server.base}/api/${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const first = (token: string, email = 'first@sallow.example'): Promise<Response> =>
    post('first-account', { token, email, name: 'Marit Oke', password: RIGHT, workspace: 'Inquiry' });
  const isGood = async (token: string): Promise<boolean> => (await post('first-link', { token })).status === 204;

  test('is made by the link of the start alone, once, and can steer its workspace', async () => {
    expect((await first(TOKEN)).status, 'there are accounts').toBe(403);
    await run('delete from members; delete from users');
    expect((await first('of-another-start')).status).toBe(403);
    expect([await isGood('of-another-start'), await isGood(TOKEN)]).toEqual([false, true]);
    const both = await Promise.all([first(TOKEN), first(TOKEN, 'second@sallow.example')]);
    expect(both.map((r) => r.status).sort()).toEqual([200, 403]);
    expect(await isGood(TOKEN), 'it was used').toBe(false);
    const info = (await both.find((r) => r.status === 200)!.json()) as SessionInfo;
    expect(info.workspaces).toEqual([expect.objectContaining({ name: 'Inquiry', role: 'steward' })]);
    expect((await from('192.0.2.30', info.email, RIGHT)).status).toBe(200);
  });
});
