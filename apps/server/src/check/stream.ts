/** All records of a workspace for a worker thread: as text and in shares, so that they are no objects of the server's own thread. */
import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { sql } from 'drizzle-orm';
import type { Presence } from '@pandecta/core/changes';
import type { Db } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import type { RecordsMessage } from '../workers/records.ts';

const SHARE = 5000;

export interface Streaming<R> {
  presences: Presence[];
  /** Fields that are not looked at. */
  without?: string[];
  /** The task, given its end of the channel, and what ends its thread: else it would wait for records that never come. */
  run: (port: MessagePort, stop: AbortSignal) => Promise<R>;
  /** What goes with the last of them, by the ids that went. */
  end?: (ids: string[]) => unknown;
  /** Told how many were read; what it throws ends it all. */
  read?: (count: number) => Promise<void>;
  /** What the thread says on its way. */
  says?: (message: unknown) => Promise<void>;
}

/** @returns what the task found, and the ids of the records in the order they went */
export async function withAllRecords<R>(
  db: Db,
  workspaceId: string,
  by: Streaming<R>,
): Promise<{ ids: string[]; found: R }> {
  const { port1: port, port2: theirs } = new MessageChannel();
  const stop = new AbortController();
  const post = (message: RecordsMessage): void => port.postMessage(message);
  // What ends the work ends the thread as well: it hears nothing while it computes.
  let ended: unknown;
  const end = (error: unknown): void => {
    ended ??= error;
    stop.abort();
  };
  port.on('message', (message) => void by.says?.(message).catch(end));
  const found = by.run(theirs, stop.signal);
  found.catch(end);
  try {
    const ids: string[] = [];
    for (let last: string | null = null; !ended;) {
      const share: { id: string; record: string }[] = await rows(
        db,
        { id: text(), record: text() },
        sql`select id, (record - ${array(by.without ?? [], 'text')})::text as record from sources
          where workspace_id = ${workspaceId} and presence = any(${array(by.presences, 'text')})
            and (${last}::uuid is null or id > ${last}) order by id limit ${SHARE}`,
      );
      if (!share.length) break;
      post({ texts: share.map((s) => s.record) });
      for (const s of share) ids.push(s.id);
      last = share.at(-1)!.id;
      await by.read?.(ids.length);
    }
    post({ end: by.end?.(ids) });
    return { ids, found: await found };
  } catch (error) {
    end(error);
    throw ended;
  } finally {
    port.close();
  }
}
