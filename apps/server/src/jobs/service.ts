/**
 * Long work. pg-boss keeps the queue in PostgreSQL and gives a job whose server died to another; the table `jobs`
 * holds what a page follows: progress, what is being done, and the wish to cancel.
 */
import { sql } from 'drizzle-orm';
import PgBoss from 'pg-boss';
import { v7 as uuidv7 } from 'uuid';
import type { JobInfo, JobState } from '@pandecta/contract';
import { one, rows, type Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';

export class Cancelled extends Error {}

/** What a job's work is given to say how far it is; throws `Cancelled` when it is to stop. */
export interface Progress {
  (done: number, total: number, says: string): Promise<void>;
}

export type Work = (workspaceId: string, jobId: string, progress: Progress) => Promise<string>;

interface Payload {
  workspaceId: string;
  jobId: string;
}

export class Jobs {
  private readonly boss: PgBoss;

  constructor(
    private readonly db: Db,
    url: string,
    private readonly report: (error: unknown) => void,
  ) {
    this.boss = new PgBoss({ connectionString: url, max: 3, application_name: 'pandecta jobs' });
    this.boss.on('error', report);
  }

  async start(kinds: Record<string, Work>): Promise<void> {
    await this.boss.start();
    for (const [kind, work] of Object.entries(kinds)) {
      await this.boss.createQueue(kind, { name: kind, retryLimit: 3, retryDelay: 1, expireInSeconds: 3600 });
      await this.giveBackOrphans(kind);
      await this.boss.work<Payload>(kind, { pollingIntervalSeconds: 0.5, batchSize: 1 }, async ([job]) => {
        if (job) await this.carryOut(kind, job.data, work);
      });
    }
  }

  /** Work that one server does once a day, at a quiet hour. */
  async daily(name: string, work: () => Promise<unknown>): Promise<void> {
    await this.boss.createQueue(name, { name, retryLimit: 2 });
    await this.boss.schedule(name, '17 3 * * *');
    await this.boss.work(name, async () => void (await work()));
  }

  /** Jobs a dead server left marked as running go back into the queue at once. Holds for one server a database. */
  private async giveBackOrphans(kind: string): Promise<void> {
    const left = await rows<Payload>(
      this.db,
      sql`select workspace_id as "workspaceId", id as "jobId" from jobs where kind = ${kind} and state in ('running', 'waiting')`,
    );
    if (!left.length) return;
    await this.boss.purgeQueue(kind);
    for (const payload of left) await this.boss.send(kind, payload, { singletonKey: payload.jobId });
  }

  async stop(): Promise<void> {
    await this.boss.stop({ graceful: true, wait: true, timeout: 5000 });
  }

  /** Makes the job and queues it once the caller's own rows are there. */
  async queue(
    workspaceId: string,
    userId: string,
    kind: string,
    title: string,
    before: (tx: Db, jobId: string) => Promise<void>,
  ): Promise<string> {
    const id = uuidv7();
    await this.db.transaction(async (tx) => {
      await tx.execute(
        sql`insert into jobs (workspace_id, id, kind, title, made_by) values (${workspaceId}, ${id}, ${kind}, ${title}, ${userId})`,
      );
      await before(tx as unknown as Db, id);
    });
    await this.boss.send(kind, { workspaceId, jobId: id });
    return id;
  }

  private async carryOut(kind: string, { workspaceId, jobId }: Payload, work: Work): Promise<void> {
    const job = await one<{ state: JobState; cancel: boolean }>(
      this.db,
      sql`select state, cancel from jobs where workspace_id = ${workspaceId} and id = ${jobId}`,
    );
    if (!job || job.state === 'done' || job.state === 'cancelled' || job.state === 'failed') return;
    const end = (state: JobState, says: string): Promise<unknown> =>
      this.db.execute(
        sql`update jobs set state = ${state}, says = ${says} where workspace_id = ${workspaceId} and id = ${jobId}`,
      );
    let last = 0;
    const progress: Progress = async (done, total, says) => {
      const now = performance.now();
      if (now - last < 150 && done !== total) return;
      last = now;
      const [row] = await rows<{ cancel: boolean }>(
        this.db,
        sql`update jobs set state = 'running', done = ${done}, total = ${total}, says = ${says} where workspace_id = ${workspaceId} and id = ${jobId} returning cancel`,
      );
      if (row?.cancel) throw new Cancelled();
    };
    try {
      await progress(0, 0, 'Beginning');
      await end('done', await work(workspaceId, jobId, progress));
    } catch (error) {
      if (error instanceof Cancelled) await end('cancelled', 'Cancelled; nothing was added');
      else {
        this.report(error);
        await end(
          'failed',
          error instanceof Refusal
            ? error.message
            : `The ${kind} failed on the server; nothing was added. The files are kept, so it can be tried again.`,
        );
      }
    }
  }

  async cancel(workspaceId: string, jobId: string): Promise<void> {
    const found = await rows(
      this.db,
      sql`update jobs set cancel = true, state = case when state = 'waiting' then 'cancelled' else state end,
      says = case when state = 'waiting' then 'Cancelled; nothing was added' else says end where workspace_id = ${workspaceId} and id = ${jobId} returning id`,
    );
    if (!found.length) throw new Refusal('no_such_job');
  }
}

export async function listJobs(db: Db, workspaceId: string): Promise<JobInfo[]> {
  return rows<JobInfo>(
    db,
    sql`select j.id, j.kind, j.title, j.state, j.done, j.total, j.says, j.made_at as "createdAt", i.id as "importId"
    from jobs j left join imports i on i.workspace_id = j.workspace_id and i.job_id = j.id
    where j.workspace_id = ${workspaceId} and (j.state in ('waiting', 'running') or j.made_at > now() - interval '1 day') order by j.id desc limit 20`,
  );
}
