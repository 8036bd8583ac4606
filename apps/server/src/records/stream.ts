/** Records for a worker thread: as text and in shares, so that they are no objects of the server's own thread. */
import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { sql } from 'drizzle-orm';
import type { Presence } from '@pandecta/core/changes';
import type { Db } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { LAST, MORE, type RecordsMessage } from '../workers/records.ts';

const SHARE = 5000;
/** So many shares are on their way to a thread that asks for them. */
const AHEAD = 2;

interface Streaming<R> {
  /** The task, given its end of the channel, and what ends its thread: else it would wait for records that never come. */
  run: (port: MessagePort, stop: AbortSignal) => Promise<R>;
  /** What goes with the last of them, by the ids that went. */
  end?: (ids: string[]) => unknown;
  /** Told how many were read; what it throws ends it all. */
  read?: (count: number) => Promise<void>;
  /** What the thread says on its way. */
  says?: (message: unknown) => Promise<void>;
  /** The thread asks for each further share: it takes them as it needs them. */
  pulls?: boolean;
}

interface Texts {
  id: string;
  record: string;
}

/** @returns what the task found, and the ids of the records in the order they went */
async function streamTo<R>(shares: AsyncIterable<Texts[]>, by: Streaming<R>): Promise<{ ids: string[]; found: R }> {
  const { port1: port, port2: theirs } = new MessageChannel();
  const stop = new AbortController();
  const post = (message: RecordsMessage): void => port.postMessage(message);
  // What ends the work ends the thread as well: it hears nothing while it computes.
  let ended: unknown;
  let goOn = (): void => {};
  const end = (error: unknown): void => {
    ended ??= error;
    stop.abort();
    goOn();
  };
  let [sent, wanted] = [0, AHEAD];
  port.on('message', (message) => {
    if (message === LAST) return port.postMessage(LAST);
    if (message !== MORE) return void by.says?.(message).catch(end);
    wanted += 1;
    goOn();
  });
  const turn = async (): Promise<void> => {
    while (by.pulls && sent >= wanted && !ended) await new Promise<void>((resolve) => (goOn = resolve));
    sent += 1;
  };
  const found = by.run(theirs, stop.signal);
  found.catch(end);
  try {
    const ids: string[] = [];
    for await (const share of shares) {
      await turn();
      if (ended) break;
      post({ texts: share.map((s) => s.record) });
      for (const s of share) ids.push(s.id);
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

interface All<R> extends Streaming<R> {
  presences: Presence[];
  /** Fields that are not looked at. */
  without?: string[];
}

/** All records of a workspace. */
export const withAllRecords = <R>(db: Db, workspaceId: string, by: All<R>): ReturnType<typeof streamTo<R>> =>
  streamTo(allOf(db, workspaceId, by), by);

async function* allOf(
  db: Db,
  workspaceId: string,
  { presences, without = [] }: Pick<All<unknown>, 'presences' | 'without'>,
): AsyncGenerator<Texts[]> {
  for (let last: string | null = null; ;) {
    const share: Texts[] = await rows(
      db,
      { id: text(), record: text() },
      sql`select id, (record - ${array(without, 'text')})::text as record from sources
        where workspace_id = ${workspaceId} and presence = any(${array(presences, 'text')})
          and (${last}::uuid is null or id > ${last}) order by id limit ${SHARE}`,
    );
    if (!share.length) return;
    yield share;
    last = share.at(-1)!.id;
  }
}

/** A record with its keywords, as it is exported. */
export interface Exportable<R> {
  record: R;
  subjects: string[];
}

/** Records with their keywords, in the order of the ids. A person's tags go out as keywords too. */
export const withExportable = <R>(
  db: Db,
  workspaceId: string,
  ids: string[],
  by: Streaming<R>,
): ReturnType<typeof streamTo<R>> => streamTo(exportableOf(db, workspaceId, ids), by);

async function* exportableOf(db: Db, workspaceId: string, ids: string[]): AsyncGenerator<Texts[]> {
  for (let i = 0; i < ids.length; i += SHARE)
    yield await rows(
      db,
      { id: text(), record: text() },
      sql`
      select s.id, jsonb_build_object('record', s.record, 'subjects', coalesce((select jsonb_agg(t.name order by t.name) from source_tags st
        join tags t on t.workspace_id = ${workspaceId} and t.id = st.tag_id where st.workspace_id = ${workspaceId} and st.source_id = s.id), '[]'))::text as record
      from unnest(${array(ids.slice(i, i + SHARE), 'uuid')}) with ordinality as u(id, place)
      join sources s on s.workspace_id = ${workspaceId} and s.id = u.id and s.presence <> 'none' order by u.place`,
    );
}
