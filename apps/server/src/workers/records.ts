/** Records that come to a thread as text, many at a time, and become objects one by one as they are looked at. */
import { receiveMessageOnPort, type MessagePort } from 'node:worker_threads';
import type { SourceRecord } from '@pandecta/core/source';

/** A share of the records as JSON, or the end, with what else goes with them. */
export type RecordsMessage = { texts: string[] } | { end: unknown };

export interface ManyRecords<R = SourceRecord> extends Iterable<R> {
  readonly length: number;
  at(index: number): R;
}

/** Waits until all have come; @returns what came with the last as well */
export function receiveRecords<T = unknown, R = SourceRecord>(
  port: MessagePort,
): Promise<{ records: ManyRecords<R>; more: T }> {
  const texts: string[] = [];
  const at = (i: number): R => JSON.parse(texts[i]!) as R;
  return new Promise((resolve) => {
    port.on('message', (message: RecordsMessage) => {
      if ('texts' in message) for (const text of message.texts) texts.push(text);
      else
        resolve({
          records: {
            length: texts.length,
            at,
            *[Symbol.iterator]() {
              for (let i = 0; i < texts.length; i += 1) yield at(i);
            },
          },
          more: message.end as T,
        });
    });
  });
}

/** What a thread says that takes records as it needs them: another share may come. */
export const MORE = 'more';

/** What a thread says after all else it had to say, and waits to hear back: its end must not overtake it. */
export const LAST = 'last';

export function awaitHeard(port: MessagePort): void {
  port.postMessage(LAST);
  nextMessage(port);
}

/**
 * The records one after another as they come; until the next share is there the thread waits. So the first are worked on
 * while the last are still being read, and no more than a few shares are held.
 */
export function* pullRecords<R>(port: MessagePort): Generator<R, void> {
  for (;;) {
    const message = nextMessage(port);
    if (!('texts' in message)) return;
    port.postMessage(MORE);
    for (const text of message.texts) yield JSON.parse(text) as R;
  }
}

const sleeper = new Int32Array(new SharedArrayBuffer(4));
const POLL_MS = 2;

function nextMessage(port: MessagePort): RecordsMessage {
  for (;;) {
    const got = receiveMessageOnPort(port) as { message: RecordsMessage } | undefined;
    if (got) return got.message;
    Atomics.wait(sleeper, 0, 0, POLL_MS);
  }
}
