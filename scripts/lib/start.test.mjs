/** What keeps Pandecta from starting, told in one sentence that says what to do. */
import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { choosePort, freePort, isFree } from './ports.mjs';
import { startPostgres } from './postgres.mjs';
import { keepRunning } from './serve.mjs';
import { Stop } from './say.mjs';

/** The one sentence the work ends with. */
async function sentence(work) {
  const error = await work().then(
    () => undefined,
    (e) => e,
  );
  expect(error).toBeInstanceOf(Stop);
  expect(error.message).toMatch(/^[^\n]+[.]$/);
  return error.message;
}

describe('a port', () => {
  let busy;
  let port;
  beforeEach(async () => {
    port = await freePort();
    busy = createServer();
    await new Promise((resolve) => busy.listen(port, '127.0.0.1', resolve));
  });
  afterEach(() => new Promise((resolve) => busy.close(resolve)));

  test('that was asked for and is in use is not exchanged for another in silence', async () => {
    expect(await isFree(port)).toBe(false);
    expect(await sentence(() => choosePort(port, 4700))).toContain(`Port ${port} is in use; stop what uses it`);
  });

  test('that was not asked for gives way to the next free one', async () => {
    const chosen = await choosePort(undefined, port);
    expect(chosen).toBeGreaterThan(port);
    expect(await isFree(chosen)).toBe(true);
  });

  test.each([0, -1, 65_536, NaN])('of %d is no port', async (wrong) => {
    expect(await sentence(() => choosePort(wrong, 4700))).toContain('which is not a port');
  });
});

describe('the database cluster', () => {
  let folder;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'pandecta-cluster-'));
  });
  afterEach(() => rmSync(folder, { recursive: true, force: true }));

  test('left half-made is cleared away and made anew; made once, it keeps what it holds', async () => {
    mkdirSync(join(folder, 'db.making/base'), { recursive: true });
    writeFileSync(join(folder, 'db.making/PG_VERSION'), '15\n');
    const first = await startPostgres(folder, { fast: true });
    await first.ensureDatabase('kept');
    // A second start finds it running, and says by what.
    expect(await sentence(() => startPostgres(folder, { fast: true }))).toMatch(/is already running \(process \d+\)/);
    await first.stop();
    expect(existsSync(join(folder, 'db.making'))).toBe(false);
    const second = await startPostgres(folder, { fast: true });
    const { default: pg } = await import('pg');
    const client = new pg.Client({ connectionString: second.url('kept') });
    await client.connect();
    expect((await client.query('select 1 as one')).rows).toEqual([{ one: 1 }]);
    await client.end();
    await second.stop();
  });

  test('of a start that was killed is stopped, and started anew', async () => {
    const left = await startPostgres(folder, { fast: true });
    // No process has this number: the largest Linux gives is 4,194,304.
    writeFileSync(join(folder, 'starter.pid'), '4194305');
    const next = await startPostgres(folder, { fast: true });
    expect(next.url('x')).not.toBe(left.url('x'));
    await next.stop();
  });

  test('that is no whole cluster is not touched', async () => {
    mkdirSync(join(folder, 'db'));
    writeFileSync(join(folder, 'db/someone-elses.txt'), 'kept');
    expect(await sentence(() => startPostgres(folder))).toContain('move it away and start again');
    expect(readdirSync(join(folder, 'db'))).toEqual(['someone-elses.txt']);
  });
});

describe('a server that ends by itself', () => {
  /** Servers that end with these codes, one after another; null does not start. */
  async function waits(codes, { stopsAfter = Infinity, lived = () => 0 } = {}) {
    const paused = [];
    const now = vi.spyOn(Date, 'now');
    vi.spyOn(process.stdout, 'write').mockImplementation(() => true);
    let clock = 0;
    now.mockImplementation(() => clock);
    let nth = 0;
    const one = () => {
      const at = nth;
      nth += 1;
      return {
        get ended() {
          clock += lived(at);
          return Promise.resolve(codes[at]);
        },
      };
    };
    const startServer = async () => {
      if (codes[nth] === null) {
        nth += 1;
        throw new Error('the port is taken');
      }
      return one();
    };
    await keepRunning(
      { server: one(), startServer },
      () => nth >= codes.length && paused.length >= Math.min(stopsAfter, codes.length),
      async (ms) => void paused.push(ms),
    );
    vi.restoreAllMocks();
    return paused;
  }

  test('is started anew after a pause that doubles while it keeps dying, up to a minute', async () => {
    expect(await waits(Array(9).fill(1))).toEqual([1000, 2000, 4000, 8000, 16_000, 32_000, 60_000, 60_000, 60_000]);
  });

  test('that had run well for a minute is started after the shortest pause again', async () => {
    const paused = await waits([1, 1, 1, 1], { lived: (nth) => (nth === 2 ? 61_000 : 0) });
    expect(paused).toEqual([1000, 2000, 1000, 2000]);
  });

  test('is tried again where it could not be started', async () => {
    expect(await waits([1, null, 1])).toEqual([1000, 2000, 4000]);
  });

  test('is not started where it was told to end', async () => {
    let started = 0;
    await keepRunning(
      { server: { ended: Promise.resolve(0) }, startServer: async () => (started += 1) },
      () => true,
      async () => {},
    );
    expect(started).toBe(0);
  });
});
