/** Tells everyone who looks at a workspace what a transaction touched, once it is committed. */
import { sql } from 'drizzle-orm';
import type { Subject } from '@pandecta/core/changes';
import type { Touched } from '@pandecta/contract';
import type { Db } from '../database/connect.ts';

export const CHANNEL = 'pandecta';

/** What goes through the channel. */
export interface News {
  workspace: string;
  /** The one member it concerns, where it is their own. */
  to?: string;
  touched: Touched;
}

/** A session has ended: who listens under it hears no more. */
export interface Ended {
  /** The hash of its token. */
  session: string;
}

/** PostgreSQL carries payloads of less than 8,000 bytes (NOTIFY). */
const MOST_BYTES = 7_500;

/** The subjects by their kind; of very many of a kind only that they are many. */
export function touchedBy(subjects: Subject[], changeId?: string): Touched {
  const kinds: Touched['kinds'] = {};
  for (const { kind, id } of subjects) {
    const ids = (kinds[kind] ??= []);
    if (ids !== 'all') ids.push(id);
  }
  const touched: Touched = { kinds, ...(changeId && { changeId }) };
  while (JSON.stringify(touched).length > MOST_BYTES - 200) {
    const [largest] = Object.entries(kinds).sort((a, b) => b[1]!.length - a[1]!.length)[0]!;
    kinds[largest as keyof typeof kinds] = 'all';
  }
  return touched;
}

export async function notifyEnded(tx: Pick<Db, 'execute'>, sessions: string[]): Promise<void> {
  for (const session of sessions) await tx.execute(sql`select pg_notify(${CHANNEL}, ${JSON.stringify({ session })})`);
}

export async function notify(tx: Pick<Db, 'execute'>, news: News): Promise<void> {
  await tx.execute(sql`select pg_notify(${CHANNEL}, ${JSON.stringify(news)})`);
}
