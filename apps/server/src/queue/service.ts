/**
 * Long work. pg-boss keeps the queue in PostgreSQL; the table `jobs` holds what a page follows: progress, what is being
 * done, and the wish to cancel. Who carries a job out holds a lock on it for as long as its connection lives, so a job
 * without its lock belongs to a server that died, and goes back into the queue.
 */
import { setTimeout } from 'node:timers/promises';
import { and, eq, inArray, sql, type SQL } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/node-postgres';
import PgBoss from 'pg-boss';
import { v7 as uuidv7 } from 'uuid';
import { GOING, type JobInfo, type JobState } from '@pandecta/contract';
import { isFull, isUnavailable, transact, type Database, type Db } from '../database/connect.ts';
import { number, orNull, rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { within } from '../database/within.ts';
import type { Actor } from '../access/principal.ts';
import { Refusal } from '../errors.ts';
import { notify } from '../news/notify.ts';
import { QueueDatabase } from './queue-database.ts';
import { jobs } from './tables.ts';
import { Cancelled, Paused, type AnyJobOf, type Job, type JobOf, type Progress } from './kind.ts';
import type { Result } from './once.ts';

interface Payload {
  workspaceId: string;
  jobId: string;
}

/** A job over which servers ended so often is not taken up again: what it meets would end the next one too. */
const MOST_TAKINGS = 3;

/** So many of a kind go on at once on a server where the kind does not say; and of all kinds: each holds a connection. */
const AT_ONCE_OF_A_KIND = 2;
const MOST_IN_ALL = 6;
/** Those that go on when a server stops are waited for so long; then another server takes them up. */
const STOP_WITHIN_MS = 5_000;

/** How often a server looks for jobs that another left behind. */
const LOOK_EVERY_MS = 5_000;
/**
 * Begun as soon as someone is free, and kept until then, whatever the clock says: one that was queued while it was ahead would
 * wait, and one that has waited long would go. The days are counted from that beginning.
 */
const AT_ONCE: PgBoss.SendOptions = { startAfter: new Date(0), retentionDays: 100_000 };

/** The number a job is locked by. */
const lockOf = (jobId: SQL | string): SQL => sql`hashtextextended(${jobId}::text, 0)`;

/** A kind of job, and its work with the services it needs. */
interface Kind {
  kind: Omit<AnyJobOf<never>, 'work'>;
  work(job: Job<unknown>, progress: Progress): Promise<string>;
}

/** The job has ended meanwhile: by another who carries it out, or by another part of the work. */
class Over extends Error {}

export class Jobs {
  private readonly boss: PgBoss;
  private readonly queueDatabase: QueueDatabase;
  private readonly db: Db;
  private looking: NodeJS.Timeout | undefined;
  /** Those who hear that there is something to do. */
  private readonly workers: string[] = [];
  /** What is being carried out here, by its kind. */
  private readonly going = new Map<string, Set<Promise<void>>>();
  private stopping = false;
  private kinds = new Map<string, Kind>();

  constructor(
    private readonly database: Database,
    url: string,
    private readonly report: (error: unknown) => void,
  ) {
    this.db = database.db;
    this.queueDatabase = new QueueDatabase(url);
    this.boss = new PgBoss({ db: this.queueDatabase });
    this.boss.on('error', report);
  }

  /** Begins to take up jobs of these kinds. */
  async start<S>(kinds: AnyJobOf<S>[], services: S): Promise<void> {
    this.kinds = new Map(
      kinds.map((kind) => [kind.kind, { kind, work: (job, progress) => kind.work(services, job, progress) }]),
    );
    await this.boss.start();
    for (const kind of this.kinds.keys()) {
      await this.boss.createQueue(kind, { name: kind, retryLimit: 3, retryDelay: 1, expireInSeconds: 3600 });
      const worker = await this.boss.work<Payload>(kind, { pollingIntervalSeconds: 0.5, batchSize: 1 }, async ([job]) =>
        this.wake(kind, job?.data),
      );
      this.workers.push(worker);
    }
    this.looking = setInterval(() => {
      // A server that died leaves one running that nobody holds, or waiting that nobody was told of.
      for (const kind of this.kinds.keys()) {
        this.giveBackOrphans(kind).catch(this.report);
        this.wake(kind);
      }
      // They reckon by the clock how long to wait: set back, it would be hours.
      for (const worker of this.workers) this.boss.notifyWorker(worker);
    }, LOOK_EVERY_MS);
  }

  /** Work that one of the servers does by itself at certain times; @param at as cron has it */
  async regularly(name: string, at: string, work: () => Promise<unknown>): Promise<void> {
    await this.boss.createQueue(name, { name, retryLimit: 2 });
    await this.boss.schedule(name, at);
    this.workers.push(await this.boss.work(name, async () => void (await work())));
  }

  private async send(kind: string, payload: Payload): Promise<void> {
    await this.boss.send(kind, payload, AT_ONCE);
  }

  /**
   * Takes up what waits, as far as there is room here: several of a kind, and never all of them for one member, so that
   * the next member's begins at once. What a message says is only that there is something; which it is, the table says.
   */
  private wake(kind: string, orphan?: Payload): void {
    const those = this.going.get(kind) ?? new Set();
    this.going.set(kind, those);
    const inAll = [...this.going.values()].reduce((n, s) => n + s.size, 0);
    if (this.stopping || those.size >= this.atOnce(kind) || inAll >= MOST_IN_ALL) return;
    const run: Promise<void> = this.takeUp(kind, orphan)
      .catch(this.report)
      .finally(() => void those.delete(run));
    those.add(run);
  }

  private readonly atOnce = (kind: string): number => this.kinds.get(kind)!.kind.atOnce ?? AT_ONCE_OF_A_KIND;

  /** Starts waiting jobs of this kind one after another, until none is left that may start now. */
  private async takeUp(kind: string, orphan?: Payload): Promise<void> {
    if (orphan && (await this.isRunning(orphan))) await this.alone(orphan, () => this.carryOut(kind, orphan));
    const held: string[] = [];
    while (!this.stopping) {
      const next = await this.next(kind, held);
      if (!next) return;
      // Another took it up in the same moment.
      if (!(await this.alone(next, () => this.carryOut(kind, next)))) held.push(next.jobId);
    }
  }

  private isRunning({ workspaceId, jobId }: Payload): Promise<boolean> {
    return within(this.db, workspaceId).has(jobs, and(eq(jobs.id, jobId), eq(jobs.state, 'running')));
  }

  /** The first of whoever has the fewest going; of one member never so many that nothing is left for others. */
  private async next(kind: string, held: string[]): Promise<Payload | undefined> {
    const going = sql`(select count(*) from jobs r where r.kind = ${kind} and r.state = 'running' and r.made_by = j.made_by)`;
    const [found] = await rows(
      this.db,
      { workspaceId: text(), jobId: text() },
      sql`select j.workspace_id as "workspaceId", j.id as "jobId" from jobs j
        where j.kind = ${kind} and j.state = 'waiting' and j.id <> all(${array(held, 'uuid')})
          and ${going} < ${Math.max(1, this.atOnce(kind) - 1)}
        order by ${going}, j.id limit 1`,
    );
    return found;
  }

  /** Jobs no server holds go back into the queue; one that was queued as well is done once all the same. */
  private async giveBackOrphans(kind: string): Promise<void> {
    const left = await transact(this.db, (tx) =>
      rows(
        tx,
        { workspaceId: text(), jobId: text() },
        sql`select workspace_id as "workspaceId", id as "jobId" from jobs
          where kind = ${kind} and state = 'running' and pg_try_advisory_xact_lock(${lockOf(sql`id`)})`,
      ),
    );
    for (const payload of left) await this.send(kind, payload);
  }

  /**
   * Does the work while holding the lock of the job; nothing, when another holds it.
   * @returns whether it held the lock
   */
  private async alone({ jobId }: Payload, work: () => Promise<void>): Promise<boolean> {
    const client = await this.database.pool.connect();
    const tell = (query: SQL): Promise<{ rows: unknown[] }> => drizzle(client).execute(query);
    let free = false;
    try {
      const found = await tell(sql`select pg_try_advisory_lock(${lockOf(jobId)}) as held`);
      const { held } = found.rows[0] as { held: boolean };
      if (held) {
        await work();
        await tell(sql`select pg_advisory_unlock(${lockOf(jobId)})`);
      }
      free = true;
      return held;
    } finally {
      // Broken off, its lock goes with it: given back to the others it would keep the job from all who take it up.
      client.release(!free);
    }
  }

  async stop(): Promise<void> {
    clearInterval(this.looking);
    this.stopping = true;
    await this.boss.stop({ graceful: true, wait: true, timeout: STOP_WITHIN_MS });
    const left = [...this.going.values()].flatMap((s) => [...s]);
    await Promise.race([Promise.all(left), setTimeout(STOP_WITHIN_MS, undefined, { ref: false })]);
    await this.queueDatabase.close();
  }

  /**
   * Makes a job of a kind and queues it.
   * @param also what is written in the transaction that makes it
   */
  async queue<Input>(
    { kind }: Pick<JobOf<never, Input>, 'kind' | 'work'>,
    { workspaceId, userId }: Actor,
    title: string,
    input: Input,
    also?: (tx: Db, jobId: string) => Promise<unknown>,
  ): Promise<string> {
    const id = uuidv7();
    await transact(this.db, async (tx) => {
      await within(tx, workspaceId).insert(jobs, { id, kind, title, madeBy: userId, input });
      await also?.(tx, id);
    });
    await this.send(kind, { workspaceId, jobId: id });
    // Here it begins at once; other servers hear of it within half a second.
    if (this.kinds.has(kind)) this.wake(kind);
    await notify(this.db, { workspace: workspaceId, touched: { kinds: { job: [id] } } });
    return id;
  }

  private async carryOut(name: string, { workspaceId, jobId }: Payload): Promise<void> {
    const { kind, work } = this.kinds.get(name)!;
    const here = within(this.db, workspaceId);
    const one = eq(jobs.id, jobId);
    const { state, says, input, result, madeBy } = jobs;
    const job = await here.first(jobs, { state, says, input, result, madeBy }, one);
    if (!job || !['waiting', 'running'].includes(job.state)) return;
    const tell = (): Promise<void> => notify(this.db, { workspace: workspaceId, touched: { kinds: { job: [jobId] } } });
    const going = and(one, inArray(jobs.state, ['waiting', 'running']));
    const end = async (state: JobState, says: string): Promise<void> => {
      await here.update(jobs, { state, says }, going);
      await tell();
    };
    let last = 0;
    const progress: Progress = async (done, total, says) => {
      const now = performance.now();
      if (now - last < 150 && done !== total) return;
      last = now;
      const [row] = await here
        .update(jobs, { state: 'running', done, total, says }, going)
        .returning({ cancel: jobs.cancel, hold: jobs.hold });
      // A part of the work that has not heard of the end yet must not bring it back.
      if (!row) throw new Over();
      if (row.cancel) throw new Cancelled();
      if (row.hold) throw new Paused();
      await tell();
    };
    try {
      // How often someone has begun with it, this time included.
      const [taking] = await here.update(jobs, { taken: sql`${jobs.taken} + 1` }, one).returning({ times: jobs.taken });
      const { times } = taking!;
      if (times > MOST_TAKINGS) {
        await end(
          'failed',
          `Given up: the server ended ${MOST_TAKINGS} times over it, the last time at “${job.says}”; ${kind.nothing}.`,
        );
        return;
      }
      if (times === 1) await progress(0, 0, 'Beginning');
      // Its transaction is there already where a server died before it said so.
      const done = job.result as Result | null;
      const asked = { workspaceId, jobId, userId: job.madeBy, input: job.input };
      await end('done', done ? done.says : await work(asked, progress));
    } catch (error) {
      // The database is away: the job stands as it stood, and is taken up again when it is back.
      if (isUnavailable(error)) throw error;
      if (error instanceof Over) return;
      if (error instanceof Cancelled) await end('cancelled', `Cancelled; ${kind.nothing}`);
      else if (error instanceof Paused) {
        await here.update(jobs, { state: 'paused' }, going);
        await tell();
      } else {
        this.report(error);
        const full = `The disk of the server is full; ${kind.nothing}. Tell whoever runs it, and try again.`;
        await end('failed', error instanceof Refusal ? error.message : isFull(error) ? full : kind.failed);
      }
    }
  }

  async cancel(workspaceId: string, jobId: string): Promise<void> {
    // Who carries it out says so itself, unless it had not begun.
    const here = within(this.db, workspaceId);
    const one = eq(jobs.id, jobId);
    const [found] = await here.update(jobs, { cancel: true }, one).returning({ kind: jobs.kind });
    if (!found) throw new Refusal('no_such_job');
    const says = `Cancelled; ${this.kinds.get(found.kind)!.kind.nothing}`;
    await here.update(jobs, { state: 'cancelled', says }, and(one, inArray(jobs.state, ['waiting', 'paused'])));
    await notify(this.db, { workspace: workspaceId, touched: { kinds: { job: [jobId] } } });
  }

  /** Begins one anew that ended without anything to show for it: from its beginning, for who made it. */
  async again(workspaceId: string, jobId: string): Promise<void> {
    const here = within(this.db, workspaceId);
    const one = eq(jobs.id, jobId);
    const found = await here.first(jobs, { kind: jobs.kind }, one);
    if (!found || !this.kinds.has(found.kind)) throw new Refusal('no_such_job');
    const [anew] = await here
      .update(
        jobs,
        { state: 'waiting', taken: 0, done: 0, total: 0, says: '', cancel: false, hold: false },
        and(one, inArray(jobs.state, ['failed', 'cancelled'])),
      )
      .returning({ id: jobs.id });
    if (!anew) throw new Refusal('not_failed');
    await this.send(found.kind, { workspaceId, jobId });
    await notify(this.db, { workspace: workspaceId, touched: { kinds: { job: [jobId] } } });
  }

  /** Lets it rest at the next step, or go on: from the beginning, with what it had read. */
  async rest(workspaceId: string, jobId: string, hold: boolean): Promise<void> {
    const here = within(this.db, workspaceId);
    const one = eq(jobs.id, jobId);
    const found = await here.first(jobs, { kind: jobs.kind }, one);
    if (!found) throw new Refusal('no_such_job');
    if (!this.kinds.get(found.kind)?.kind.rests) throw new Refusal('invalid', 'this job cannot be paused');
    await here.update(jobs, { hold }, one);
    if (hold) await here.update(jobs, { state: 'paused' }, and(one, eq(jobs.state, 'waiting')));
    else {
      const [again] = await here
        .update(jobs, { state: 'waiting', taken: 0 }, and(one, eq(jobs.state, 'paused')))
        .returning({ id: jobs.id });
      if (again) await this.send(found.kind, { workspaceId, jobId });
    }
    await notify(this.db, { workspace: workspaceId, touched: { kinds: { job: [jobId] } } });
  }

  /** The jobs that are running and those of the last day, the newest first; a bounded member gets their own alone. */
  async list(viewer: Actor): Promise<JobInfo[]> {
    const found = await listJobs(this.db, viewer);
    return found.map((job) => ({ ...job, rests: this.kinds.get(job.kind)?.kind.rests ?? false }));
  }
}

async function listJobs(db: Db, { workspaceId, userId, bounds }: Actor): Promise<Omit<JobInfo, 'rests'>[]> {
  return rows(
    db,
    {
      id: text(),
      kind: text(),
      title: text(),
      state: text<JobState>(),
      done: number,
      total: number,
      says: text(),
      createdAt: text(),
      importId: orNull(text()),
      changeId: orNull(text()),
    },
    sql`select j.id, j.kind, j.title, j.state, j.done, j.total, j.says, j.made_at as "createdAt", i.id as "importId",
      j.result->>'changeId' as "changeId"
    from jobs j left join imports i on i.workspace_id = j.workspace_id and i.job_id = j.id
    where j.workspace_id = ${workspaceId} and ${bounds ? sql`j.made_by = ${userId}` : sql`true`} and (j.state = any(${array(GOING, 'text')}) or j.made_at > now() - interval '1 day') order by j.id desc limit 20`,
  );
}
