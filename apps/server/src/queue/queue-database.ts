/**
 * The database as the queue sees it: while it is away, what is asked of it waits. The queue does not look at what becomes of
 * its notes that a job ended, and a refusal nobody hears would end the server.
 */
import { setTimeout as wait } from 'node:timers/promises';
import pg from 'pg';
import { isUnavailable } from '../database/connect.ts';

const AGAIN_AFTER_MS = { first: 200, most: 5_000 };

export class QueueDatabase {
  private readonly pool: pg.Pool;
  private closed = false;

  constructor(url: string) {
    this.pool = new pg.Pool({ connectionString: url, max: 3, application_name: 'pandecta jobs' });
    this.pool.on('error', () => {});
    this.pool.on('connect', (client) => void client.on('error', () => {}));
  }

  async executeSql(text: string, values?: unknown[]): Promise<{ rows: unknown[]; rowCount: number }> {
    for (let pause = AGAIN_AFTER_MS.first; !this.closed; pause = Math.min(pause * 2, AGAIN_AFTER_MS.most)) {
      try {
        const { rows, rowCount } = await this.pool.query(text, values);
        return { rows, rowCount: rowCount ?? 0 };
      } catch (error) {
        if (!isUnavailable(error)) throw error;
        await wait(pause);
      }
    }
    // The queue is at an end: what it still notes of a job that outlasted it is heard by nobody, and answered by none.
    return new Promise(() => {});
  }

  async close(): Promise<void> {
    if (this.closed) return;
    this.closed = true;
    await this.pool.end();
  }
}
