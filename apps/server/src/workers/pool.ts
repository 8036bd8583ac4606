/**
 * The pool of worker threads. Each task of `tasks.ts` is a method here. What comes from outside is read in them, within
 * limits of time and memory: a file that was made to take long costs its own thread and nothing else. What a person waits for
 * has threads of its own, so that no import stands before it.
 */
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { availableParallelism } from 'node:os';
import type { TransferListItem } from 'node:worker_threads';
import PQueue from 'p-queue';
import { Piscina } from 'piscina';
import type * as tasks from './tasks.ts';

type Tasks = typeof tasks;
type TaskName = keyof Tasks;

/** A task that was ended because it took too long or too much memory. */
export class TookTooMuch extends Error {
  constructor(task: string) {
    super(`The task “${task}” exceeded its limit of time or memory.`);
  }
}

const MOST_MEMORY_MB = 2048;
/** How long a task may take from its beginning, in milliseconds; a document has a limit of its own for each program that reads it. */
const LONGEST_MS: Partial<Record<TaskName, number>> = {
  parse: 300_000,
  rebuild: 120_000,
  cutPages: 120_000,
  upright: 120_000,
  proposals: 20_000,
  hocr: 60_000,
  picturePages: 30_000,
  pdfInside: 60_000,
  annotated: 120_000,
  anchored: 120_000,
  recognise: 30_000,
  cite: 60_000,
  styles: 60_000,
  write: 300_000,
  printed: 120_000,
  vectors: 120_000,
  takeApart: 30_000,
  readReference: 30_000,
  readList: 30_000,
  readVocabulary: 60_000,
  readPage: 30_000,
  keepPage: 30_000,
  keepReadable: 60_000,
  readAnswer: 30_000,
  readListing: 60_000,
  fold: 60_000,
  flow: 60_000,
};

/** What someone waits for in front of a page, and what the words of a source wait for; all else is read by the way. */
const WAITED_FOR = new Set<TaskName>([
  'cite',
  'styles',
  'takeApart',
  'readPage',
  'fold',
  'flow',
  'proofOne',
  'altered',
  'writeMarks',
  'annotated',
  'anchored',
  'paragraphs',
  'write',
  'printed',
  'readList',
  'columns',
]);
const FOLLOWING = new Set<TaskName>(['vectors', 'keysToMeet', 'weighPairs']);

/** How far each sort of work gives way to the server's own thread, which answers everybody. */
const NICENESS = [3, 6, 10];

/**
 * The pool asks for the worker's module by `require` first. Node 20 ends the whole process (“IsGraphAsync must be used on an
 * instantiated module”) where a thread is ended while a module that it requires is being linked; one that is imported may be.
 */
const WITHOUT_REQUIRE = process.allowedNodeEnvironmentFlags.has('--experimental-require-module')
  ? ['--no-experimental-require-module']
  : [];

interface Lane {
  pool: Piscina;
  /** A task begins when a thread is free for it, so that its time does not run while it waits. */
  turns: PQueue;
}

export class Workers {
  private readonly lanes: Lane[];
  private readonly longest: typeof LONGEST_MS;

  /**
   * @param built the worker's own bundle; beside the server's unless it is said
   * @param threads how many at most for each sort of work; a single one stays, and does all it is given one after another
   * @param memory what a thread may use, in MB
   */
  constructor(
    built = fileURLToPath(new URL('./tasks.js', import.meta.url)),
    threads = Math.max(1, Math.min(4, availableParallelism())),
    { memory = MOST_MEMORY_MB, longest = LONGEST_MS }: { memory?: number; longest?: typeof LONGEST_MS } = {},
  ) {
    this.longest = longest;
    if (!existsSync(built)) throw new Error(`The workers are not built: ${built} is missing.`);
    this.lanes = (threads === 1 ? [0] : NICENESS).map((niceness) => ({
      turns: new PQueue({ concurrency: threads }),
      pool: new Piscina({
        filename: built,
        minThreads: 1,
        maxThreads: threads,
        idleTimeout: 60_000,
        workerData: { niceness },
        execArgv: [...process.execArgv.filter((flag) => flag === '--enable-source-maps'), ...WITHOUT_REQUIRE],
        ...(memory < Infinity && { resourceLimits: { maxOldGenerationSizeMb: memory } }),
      }),
    }));
  }

  private laneOf(name: TaskName): Lane {
    const nth = WAITED_FOR.has(name) ? 0 : FOLLOWING.has(name) ? 1 : 2;
    return this.lanes[nth] ?? this.lanes[0]!;
  }

  /**
   * @param stop ends the thread when it is aborted
   * @throws TookTooMuch
   */
  run<N extends TaskName>(
    name: N,
    input: Parameters<Tasks[N]>[0],
    transferList?: TransferListItem[],
    stop?: AbortSignal,
  ): Promise<Awaited<ReturnType<Tasks[N]>>> {
    const { pool, turns } = this.laneOf(name);
    const done: Promise<unknown> = turns.add(async () => {
      const longest = this.longest[name];
      const signal = stop ?? (longest === undefined ? undefined : AbortSignal.timeout(longest));
      try {
        return (await pool.run(input, {
          name,
          ...(signal && { signal }),
          ...(transferList && { transferList }),
        })) as unknown;
      } catch (error) {
        if ((signal?.aborted && !stop) || (error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY')
          throw new TookTooMuch(name);
        throw error;
      }
    });
    return done as never;
  }

  async close(): Promise<void> {
    await Promise.all(this.lanes.map(({ pool }) => pool.destroy()));
  }
}
