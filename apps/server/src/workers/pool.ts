/**
 * The pool of worker threads. Each task of `tasks.ts` is a method here. What comes from outside is read in them, within
 * limits of time and memory: a file that was made to take long costs its own thread and nothing else.
 */
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { availableParallelism } from 'node:os';
import type { TransferListItem } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type * as tasks from './tasks.ts';

type Tasks = typeof tasks;
type TaskName = keyof Tasks;

/** A task that was ended because it took too long or too much memory. */
export class TookTooMuch extends Error {
  constructor(task: string) {
    super(`The task “${task}” took more time or memory than it may.`);
  }
}

const MOST_MEMORY_MB = 2048;
/** How long a task may take, in milliseconds; a document has a limit of its own for each program that reads it. */
const LONGEST_MS: Partial<Record<TaskName, number>> = {
  parse: 300_000,
  rebuild: 120_000,
  recognise: 30_000,
  cite: 60_000,
  write: 300_000,
  vectors: 120_000,
  takeApart: 30_000,
  readReference: 30_000,
  readList: 30_000,
  readVocabulary: 60_000,
  readPage: 30_000,
  keepPage: 30_000,
  readAnswer: 30_000,
  readListing: 60_000,
};

export class Workers {
  private readonly pool: Piscina;
  private readonly longest: typeof LONGEST_MS;

  /**
   * @param built the worker's own bundle; beside the server's unless it is said
   * @param threads how many at most; a single one stays, and does what it is given one after another
   * @param memory what a thread may use, in MB
   */
  constructor(
    built = fileURLToPath(new URL('./tasks.js', import.meta.url)),
    threads = Math.max(1, Math.min(4, availableParallelism())),
    { memory = MOST_MEMORY_MB, longest = LONGEST_MS }: { memory?: number; longest?: typeof LONGEST_MS } = {},
  ) {
    this.longest = longest;
    if (!existsSync(built)) throw new Error(`The workers are not built: ${built} is missing.`);
    this.pool = new Piscina({
      filename: built,
      minThreads: 1,
      maxThreads: threads,
      idleTimeout: 60_000,
      ...(memory < Infinity && { resourceLimits: { maxOldGenerationSizeMb: memory } }),
    });
  }

  /**
   * @param stop ends the thread when it is aborted
   * @throws TookTooMuch
   */
  async run<N extends TaskName>(
    name: N,
    input: Parameters<Tasks[N]>[0],
    transferList?: TransferListItem[],
    stop?: AbortSignal,
  ): Promise<Awaited<ReturnType<Tasks[N]>>> {
    const longest = this.longest[name];
    const signal = stop ?? (longest === undefined ? undefined : AbortSignal.timeout(longest));
    try {
      return (await this.pool.run(input, {
        name,
        ...(signal && { signal }),
        ...(transferList && { transferList }),
      })) as never;
    } catch (error) {
      if ((signal?.aborted && !stop) || (error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY')
        throw new TookTooMuch(name);
      throw error;
    }
  }

  close(): Promise<void> {
    return this.pool.destroy();
  }
}
