/**
 * The indexer: takes sources from the queue a few at a time and writes their text vectors. Any server may take any
 * of them; one that dies gives its share back, since the queue is emptied in the transaction that writes the vectors.
 */
import { setImmediate as breathe } from 'node:timers/promises';
import { isNull, lt, sql } from 'drizzle-orm';
import { isUnavailable, withoutTimeout, type Db } from '../database/connect.ts';
import { json, list, number, one, orNull, rows, text } from '../database/read.ts';
import { array, table } from '../database/sql.ts';
import { within } from '../database/within.ts';
import type { SourceRecord } from '@pandecta/core/source';
import { notify } from '../live/notify.ts';
import { NOTED, numbersOf } from './derive.ts';
import { indexQueue, textNotes } from './tables.ts';
import type { Workers } from '../workers/pool.ts';
import type { TextParts } from './vector.ts';

const SHARE = 250;
const EVERY_MS = 1000;
/** While much is read in, those who look are told of it only so often. */
const TELL_EVERY_MS = 2000;
/** Any number: with that of a workspace, what those who note for it wait for. */
const NOTING = 4_700_002;
const NEXT = sql`select workspace_id, source_id from index_queue where after is null or after < now() order by workspace_id, source_id`;

/** Whether words of a workspace were written that the indexer has not come to. */
export function hasUnread(db: Db, workspaceId: string): Promise<boolean> {
  return within(db, workspaceId).has(indexQueue, isNull(indexQueue.after));
}

export class Indexer {
  private timer: NodeJS.Timeout | undefined;
  private running: Promise<void> | undefined;
  private again = false;
  /** Workspaces of which words were written since those who look were told. */
  private readonly untold = new Set<string>();
  private toldAt = 0;

  constructor(
    private readonly db: Db,
    private readonly workers: Workers,
    private readonly report: (error: unknown) => void,
  ) {}

  /** Begins to look at the queue from time to time: another server may have filled it. */
  start(): void {
    this.timer = setInterval(() => this.kick(), EVERY_MS);
  }

  /** Looks at the queue at once: called after a write. */
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

  /** Resolves when all that was queued before has been indexed, by this server's own loop too. */
  async settle(): Promise<void> {
    while (this.running) await this.running;
    await this.drain();
  }

  /** Empties the queue; resolves when nothing is left that no one else has taken and that does not stand aside. */
  private async drain(): Promise<void> {
    for (let size = SHARE; ;) {
      try {
        if (!(await withoutTimeout(this.db, (tx) => this.share(tx, size)))) return;
        size = Math.min(SHARE, size * 2);
      } catch (error) {
        if (isUnavailable(error)) throw error;
        // One of them does it: fewer at a time, until it is alone.
        if (size === 1) await this.setAside(error);
        size = Math.max(1, Math.floor(size / 8));
      }
      await breathe();
    }
  }

  /** @returns how many were indexed */
  private async share(tx: Db, size: number): Promise<number> {
    const taken = await rows(
      tx,
      { workspace_id: text(), source_id: text() },
      sql`
      delete from index_queue q using (${NEXT} limit ${size} for update skip locked) t
      where q.workspace_id = t.workspace_id and q.source_id = t.source_id
      returning q.workspace_id, q.source_id`,
    );
    const byWorkspace = new Map<string, string[]>();
    for (const t of taken) byWorkspace.set(t.workspace_id, [...(byWorkspace.get(t.workspace_id) ?? []), t.source_id]);
    for (const [workspaceId, ids] of byWorkspace) {
      await this.write(tx, workspaceId, ids);
      this.untold.add(workspaceId);
    }
    // Last, and in one order: two that write wait for each other only from here to their commit.
    for (const [workspaceId, ids] of [...byWorkspace].sort(([a], [b]) => (a < b ? -1 : 1)))
      await this.note(tx, workspaceId, ids);
    if (taken.length < size || Date.now() - this.toldAt > TELL_EVERY_MS) await this.tell(tx);
    return taken.length;
  }

  /** Notes whose text was written, in the order in which it comes to be seen. */
  private async note(tx: Db, workspaceId: string, ids: string[]): Promise<void> {
    const numbers = await numbersOf(tx, workspaceId, ids);
    await tx.execute(
      sql`select pg_advisory_xact_lock(${NOTING}, (select number from workspaces where id = ${workspaceId}))`,
    );
    const noted = await one(
      tx,
      { revision: number },
      sql`insert into text_notes (workspace_id, revision, numbers)
        select ${workspaceId}, coalesce(max(revision), 0) + 1, ${array(numbers, 'int')} from text_notes where workspace_id = ${workspaceId}
        returning revision`,
    );
    await within(tx, workspaceId).delete(textNotes, lt(textNotes.revision, noted!.revision - NOTED));
  }

  private async tell(tx: Db): Promise<void> {
    for (const workspace of this.untold) await notify(tx, { workspace, touched: { kinds: { words: 'all' } } });
    this.untold.clear();
    this.toldAt = Date.now();
  }

  /** The next one in the queue cannot be indexed: it waits, longer each time, and the others go on. */
  private async setAside(error: unknown): Promise<void> {
    this.report(error);
    await this.db.execute(sql`
      update index_queue q set failures = failures + 1, after = now() + least(interval '1 day', interval '1 minute' * power(2, failures))
      from (${NEXT} limit 1) t where q.workspace_id = t.workspace_id and q.source_id = t.source_id`);
  }

  private async write(tx: Db, workspaceId: string, ids: string[]): Promise<void> {
    const parts = await this.gather(tx, workspaceId, ids);
    const vectors = await this.workers.run('vectors', parts);
    const read = table('u', {
      id: ['uuid', parts.map((p) => p.id)],
      number: ['int', parts.map((p) => p.number)],
      vector: ['text', vectors.map((v) => v.words)],
      fields: ['text', vectors.map((v) => v.fields)],
      left_out: ['int', vectors.map((v) => v.leftOut)],
    });
    await tx.execute(sql`
      insert into source_text (workspace_id, source_id, number, vector, fields, left_out)
      select ${workspaceId}::uuid, u.id, u.number, u.vector::tsvector, u.fields::tsvector, u.left_out from ${read}
      on conflict (workspace_id, source_id) do update set number = excluded.number, vector = excluded.vector, fields = excluded.fields,
        left_out = excluded.left_out`);
  }

  private async gather(
    tx: Db,
    workspaceId: string,
    ids: string[],
  ): Promise<(TextParts & { id: string; number: number })[]> {
    const w = sql`${workspaceId}::uuid`;
    const found = await rows(
      tx,
      {
        id: text(),
        record: json<SourceRecord>(),
        workspace: number,
        number: number,
        subjects: orNull(list(text())),
        glosses: orNull(list(text())),
        stems: orNull(list(text())),
      },
      sql`
      select s.id, s.record, w.number as workspace, ss.number,
        (select array_agg(t.name) from source_tags st join tags t on t.workspace_id = ${w} and t.id = st.tag_id and t.subject
          where st.workspace_id = ${w} and st.source_id = s.id) as subjects,
        (select array_agg(m.gloss) from marks m where m.workspace_id = ${w} and m.source_id = s.id and m.present and m.gloss <> '') as glosses,
        (select array_agg(distinct split_part(l, ':', 2)) from source_files sf
          join page_text p on p.workspace_id = ${w} and p.file_id = sf.file_id, unnest(tsvector_to_array(p.vector)) l
          where sf.workspace_id = ${w} and sf.source_id = s.id) as stems
      from sources s join workspaces w on w.id = s.workspace_id
      join source_sort ss on ss.workspace_id = ${w} and ss.source_id = s.id
      where s.workspace_id = ${w} and s.id = any(${array(ids, 'uuid')})`,
    );
    return found.map((f) => ({
      id: f.id,
      number: f.number,
      workspace: f.workspace,
      record: f.record,
      subjects: f.subjects ?? [],
      glosses: f.glosses ?? [],
      pageStems: f.stems ?? [],
    }));
  }
}
