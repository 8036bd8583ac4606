/** The pool of worker threads. Each task of `tasks.ts` is a method here. */
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { availableParallelism } from 'node:os';
import { Piscina } from 'piscina';
import type * as tasks from './tasks.ts';

type Tasks = typeof tasks;
type TaskName = keyof Tasks;

export class Workers {
  private readonly pool: Piscina;

  /**
   * @param built the worker's own bundle; beside the server's unless it is said
   * @param threads how many at most; a single one stays, and does what it is given one after another
   */
  constructor(
    built = fileURLToPath(new URL('./tasks.js', import.meta.url)),
    threads = Math.max(1, Math.min(4, availableParallelism())),
  ) {
    if (!existsSync(built)) throw new Error(`The workers are not built: ${built} is missing.`);
    this.pool = new Piscina({
      filename: built,
      minThreads: 1,
      maxThreads: threads,
      idleTimeout: 60_000,
    });
  }

  run<N extends TaskName>(name: N, input: Parameters<Tasks[N]>[0]): Promise<Awaited<ReturnType<Tasks[N]>>> {
    return this.pool.run(input, { name }) as Promise<Awaited<ReturnType<Tasks[N]>>>;
  }

  close(): Promise<void> {
    return this.pool.destroy();
  }
}
