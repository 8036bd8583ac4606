/**
 * News of what was touched, from PostgreSQL to whoever listens here. Every server hears all of it over a connection of its
 * own; when that connection was away for a while, everyone is told to look at everything again.
 */
import { setTimeout as wait } from 'node:timers/promises';
import pg from 'pg';
import type { Touched } from '@pandecta/contract';
import { CHANNEL, type Ended, type News } from './notify.ts';

export interface Listener {
  workspace: string;
  user: string;
  /** The hash of the token of the session under which it listens. */
  session: string;
  end(): void;
  tell(touched: Touched): void;
}

const EVERYTHING: Touched = { everything: true, kinds: {} };
const AGAIN_AFTER_MS = { first: 200, most: 5_000 };

export class Live {
  private readonly listeners = new Set<Listener>();
  private client: pg.Client | undefined;
  private stopped = false;

  constructor(private readonly url: string) {}

  /** Resolves when the first connection listens. */
  async start(): Promise<void> {
    await this.connect();
  }

  /** @returns what ends the listening */
  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  async stop(): Promise<void> {
    this.stopped = true;
    await this.client?.end().catch(() => {});
  }

  private async connect(): Promise<void> {
    const client = new pg.Client({ connectionString: this.url, application_name: 'pandecta live' });
    client.on('notification', ({ payload }) => payload && this.hear(JSON.parse(payload) as News | Ended));
    client.on('error', () => {});
    client.on('end', () => void (!this.stopped && this.client === client && this.reconnect()));
    await client.connect();
    this.client = client;
    await client.query(`listen ${CHANNEL}`);
  }

  private async reconnect(): Promise<void> {
    this.client = undefined;
    for (let pause = AGAIN_AFTER_MS.first; !this.stopped; pause = Math.min(pause * 2, AGAIN_AFTER_MS.most)) {
      try {
        await this.connect();
        // What was said meanwhile is lost.
        for (const { tell } of this.listeners) tell(EVERYTHING);
        return;
      } catch {
        await wait(pause);
      }
    }
  }

  private hear(heard: News | Ended): void {
    if ('session' in heard) {
      for (const l of this.listeners) if (l.session === heard.session) l.end();
      return;
    }
    const { workspace, to, touched } = heard;
    for (const l of this.listeners) if (l.workspace === workspace && (!to || to === l.user)) l.tell(touched);
  }
}
