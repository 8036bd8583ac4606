/** Files on disk: each content once, whole or not at all. */
import { createHash } from 'node:crypto';
import { mkdtempSync, readdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { FolderStorage } from './storage.ts';

let folder: string;
let storage: FolderStorage;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'pandecta-files-'));
  storage = new FolderStorage(folder);
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const kept = (): string[] =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((e) => e.isFile())
    .map((e) => e.name);

// The digest of “abc” is the example of FIPS 180-4, SHA-256.
test('a file lies under the SHA-256 of its content', async () => {
  const sha256 = 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad';
  expect(await storage.put(Readable.from([Buffer.from('a'), Buffer.from('bc')]))).toEqual({ sha256, bytes: 3 });
  expect(kept()).toEqual([sha256]);
});

test('whatever is put there comes back, and the same content is kept once', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(fc.uint8Array({ maxLength: 300 }), { maxLength: 5 }), async (chunks) => {
      const whole = Buffer.concat(chunks);
      const first = await storage.put(Readable.from(chunks.map((c) => Buffer.from(c))));
      const again = await storage.put(Readable.from([whole]));
      expect(again).toEqual(first);
      expect(first.sha256).toBe(createHash('sha256').update(whole).digest('hex'));
      expect(await buffer(storage.read(first.sha256))).toEqual(whole);
      expect(kept().filter((name) => name === first.sha256)).toHaveLength(1);
    }),
    { numRuns: 40 },
  );
});

test('a part of a file is read without the rest', async () => {
  const { sha256 } = await storage.put(Readable.from([Buffer.from('the ebb tide')]));
  expect((await buffer(storage.read(sha256, { start: 4, end: 6 }))).toString()).toBe('ebb');
});

test('a sending that breaks off leaves nothing behind', async () => {
  async function* broken(): AsyncGenerator<Buffer> {
    yield Buffer.from('the first half');
    await Promise.resolve();
    throw new Error('the line went dead');
  }
  await expect(storage.put(Readable.from(broken()))).rejects.toThrow('the line went dead');
  expect(kept()).toEqual([]);
});

test('two who send the same file at once both have it, and it is there once', async () => {
  const send = (): Promise<{ sha256: string }> => storage.put(Readable.from([Buffer.alloc(200_000, 7)]));
  const all = await Promise.all([send(), send(), send()]);
  expect(new Set(all.map((s) => s.sha256)).size).toBe(1);
  expect(kept()).toEqual([all[0]!.sha256]);
});

describe('the sweep', () => {
  const put = async (text: string): Promise<string> => (await storage.put(Readable.from([Buffer.from(text)]))).sha256;
  /** As though it had come so long ago. */
  const age = (path: string, hours: number): void => {
    const at = new Date(Date.now() - hours * 3_600_000);
    utimesSync(path, at, at);
  };
  const nobody = (): Promise<Set<string>> => Promise.resolve(new Set());

  test('takes what nobody holds and came more than a day ago, and nothing else', async () => {
    const [held, loose, fresh] = [await put('held'), await put('loose'), await put('fresh')];
    for (const sha256 of [held, loose]) age(storage.path(sha256), 25);
    // Of a server that was killed, and of one that is receiving.
    for (const [name, hours] of [
      ['left', 25],
      ['receiving', 1],
    ] as const) {
      writeFileSync(join(folder, 'coming', name), 'half');
      age(join(folder, 'coming', name), hours);
    }
    expect(await storage.sweep((those) => Promise.resolve(new Set(those.filter((s) => s === held))))).toBe(2);
    expect(kept().sort()).toEqual([held, fresh, 'receiving'].sort());
  });

  test('looks only at what it is told to, where it is told', async () => {
    const [one, other] = [await put('one'), await put('other')];
    for (const sha256 of [one, other]) age(storage.path(sha256), 25);
    await storage.sweep(nobody, [one, 'never there']);
    expect(kept()).toEqual([other]);
  });

  test('lets be what is brought again while it looks', async () => {
    const sha256 = await put('brought twice');
    age(storage.path(sha256), 25);
    await storage.sweep(async () => {
      await put('brought twice');
      return new Set();
    });
    expect(kept()).toEqual([sha256]);
  });
});
