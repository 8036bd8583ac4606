/** What keeps Pandecta from starting, told in one sentence that says what to do. */
import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { choosePort, freePort, isFree } from './ports.mjs';
import { startPostgres } from './postgres.mjs';
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
