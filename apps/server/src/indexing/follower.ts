/**
 * What follows the writes: sources wait in a queue and are taken from it a few at a time. Any server may take any of them; one
 * that dies gives its share back, since the queue is emptied in the transaction that does the work.
 */
import { setImmediate as breathe } from 'node:timers/promises';
import { sql, type SQL } from 'drizzle-orm';
import type { NewsKind } from '@pandecta/contract';
import { isFull, isUnavailable, withoutTimeout, type Db } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { notify } from '../news/notify.ts';

export interface Following {
  /** A table with `workspace_id`, `source_id`, `failures` and `after`. */
  queue: 'index_queue' | 'compare_queue';
  /** So many are taken at one go. */
  share: number;
  /** What those who look are told was touched. */
  news: NewsKind;
  work: (tx: Db, workspaceId: string, ids: string[]) => Promise<void>;
  /** Last, and in one order of workspaces: two that wait for each other here do so only to their commit. */
  end?: (tx: Db, workspaceId: string, ids: string[]) => Promise<void>;
}

interface Taken {
  workspace_id: string;
  source_id: string;
}

/** The work on what was taken could not be done. */
class ShareFailed extends Error {
  constructor(
    readonly taken: Taken[],
    override readonly cause: unknown,
  ) {
    super('The work on a share could not be done', { cause });
  }
}

const EVERY_MS = 1000;
/** While much is read in, those who look are told of it only so often. */
const TELL_EVERY_MS = 2000;

class Follower {
  private timer: NodeJS.Timeout | undefined;
  private running: Promise<void> | undefined;
  private again = false;
  /** Workspaces something was done in since those who look were told. */
  private readonly untold = new Set<string>();
  private toldAt = 0;

  constructor(
    private readonly db: Db,
    private readonly report: (error: unknown) => void,
    private readonly what: Following,
  ) {}

  start(): void {
    this.timer = setInterval(() => this.kick(), EVERY_MS);
  }

  kick(): void {
    if (this.running) {
      this.again = true;
      return;
    }
    this.running = this.drain()
      .catch(this.report)
      .finally(() => {
        this.running = undefined;
        if (this.again) {
          this.again = false;
          this.kick();
        }
      });
  }

  async stop(): Promise<void> {
    clearInterval(this.timer);
    this.again = false;
    await this.running;
  }

  async settle(): Promise<void> {
    while (this.running) await this.running;
    await this.drain();
  }

  get queue(): Following['queue'] {
    return this.what.queue;
  }

  /** What is next, of one workspace or of all. */
  private next(only?: string): SQL {
    const here = only ? sql`and workspace_id = ${only}` : sql``;
    return sql`select workspace_id, source_id from ${sql.raw(this.queue)} where (after is null or after < now()) ${here} order by workspace_id, source_id`;
  }

  /**
   * Empties the queue; resolves when nothing is left that no one else has taken and that does not stand aside.
   * @param only of one workspace, and waiting for what others have taken of it
   */
  async drain(only?: string): Promise<void> {
    for (let size = this.what.share; ;) {
      try {
        if (!(await withoutTimeout(this.db, (tx) => this.share(tx, size, only)))) return;
        size = Math.min(this.what.share, size * 2);
      } catch (failed) {
        if (!(failed instanceof ShareFailed)) throw failed;
        const { cause, taken } = failed;
        // It is the machine that gives way, not a source.
        if (isUnavailable(cause) || isFull(cause)) throw cause;
        // One of them does it: fewer at a time, until it is alone.
        if (taken.length === 1) await this.setAside(cause, taken[0]!);
        size = Math.max(1, Math.floor(size / 8));
      }
      await breathe();
    }
  }

  /** @returns how many were taken */
  private async share(tx: Db, size: number, only?: string): Promise<number> {
    const others = only ? sql`` : sql`skip locked`;
    const taken: Taken[] = await rows(
      tx,
      { workspace_id: text(), source_id: text() },
      sql`
      delete from ${sql.raw(this.queue)} q using (${this.next(only)} limit ${size} for update ${others}) t
      where q.workspace_id = t.workspace_id and q.source_id = t.source_id
      returning q.workspace_id, q.source_id`,
    );
    try {
      await this.workOn(tx, taken);
    } catch (error) {
      throw new ShareFailed(taken, error);
    }
    if (taken.length < size || Date.now() - this.toldAt > TELL_EVERY_MS) await this.tell(tx);
    return taken.length;
  }

  private async workOn(tx: Db, taken: Taken[]): Promise<void> {
    const byWorkspace = new Map<string, string[]>();
    for (const t of taken) byWorkspace.set(t.workspace_id, [...(byWorkspace.get(t.workspace_id) ?? []), t.source_id]);
    for (const [workspaceId, ids] of byWorkspace) {
      await this.what.work(tx, workspaceId, ids);
      this.untold.add(workspaceId);
    }
    for (const [workspaceId, ids] of [...byWorkspace].sort(([a], [b]) => (a < b ? -1 : 1)))
      await this.what.end?.(tx, workspaceId, ids);
  }

  private async tell(tx: Db): Promise<void> {
    for (const workspace of this.untold)
      await notify(tx, { workspace, touched: { kinds: { [this.what.news]: 'all' } } });
    this.untold.clear();
    this.toldAt = Date.now();
  }

  /** One that cannot be done waits, longer each time, and the others go on. */
  private async setAside(error: unknown, { workspace_id, source_id }: Taken): Promise<void> {
    this.report(error);
    await this.db.execute(sql`
      update ${sql.raw(this.queue)} q set failures = failures + 1, after = now() + least(interval '1 day', interval '1 minute' * power(2, failures))
      where q.workspace_id = ${workspace_id} and q.source_id = ${source_id}`);
  }
}

/** All that follows the writes, each at its own pace. */
export class Followers {
  private readonly all: Follower[];

  constructor(db: Db, report: (error: unknown) => void, all: Following[]) {
    this.all = all.map((what) => new Follower(db, report, what));
  }

  /** Begins to look at the queues from time to time: another server may have filled them. */
  start(): void {
    for (const f of this.all) f.start();
  }

  /** Looks at the queues at once: called after a write. */
  kick(): void {
    for (const f of this.all) f.kick();
  }

  async stop(): Promise<void> {
    await Promise.all(this.all.map((f) => f.stop()));
  }

  /** Resolves when what a workspace has in a queue is done, however much others have in it. */
  async catchUp(queue: Following['queue'], workspaceId: string): Promise<void> {
    await this.all.find((f) => f.queue === queue)!.drain(workspaceId);
  }

  /** Resolves when all that was queued before has been done, by this server's own loops too. */
  async settle(): Promise<void> {
    await Promise.all(this.all.map((f) => f.settle()));
  }
}
