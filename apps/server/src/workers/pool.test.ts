/** A file that was made to take long costs its own thread and nothing else. */
import { afterEach, expect, test } from 'vitest';
import { TookTooMuch, Workers } from './pool.ts';

let workers: Workers;
afterEach(() => workers.close());
const small = { bytes: Buffer.from('TY  - BOOK\nTI  - Tides\nER  - \n') };
const large = { bytes: Buffer.from('TY  - BOOK\nTI  - Tides\nER  - \n'.repeat(200_000)) };

test('a task that takes longer than it may is ended, and the next one is done', async () => {
  workers = new Workers(process.env.PANDECTA_TASKS, 1, { longest: { parse: 100 } });
  await expect(workers.run('parse', large)).rejects.toThrow(TookTooMuch);
  expect(await workers.run('vectors', [])).toEqual([]);
});

test('a task that takes more memory than it may is ended, and the server lives', async () => {
  workers = new Workers(process.env.PANDECTA_TASKS, 1, { memory: 48 });
  await expect(workers.run('parse', large)).rejects.toThrow(TookTooMuch);
  expect(await workers.run('parse', small)).toMatchObject({ format: 'ris' });
});
