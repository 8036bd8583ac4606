/** The connection pool and transactions. Of two ways to speak to it, `within` is for simple queries and `read` for SQL text. */
import { setTimeout } from 'node:timers/promises';
import { sql } from 'drizzle-orm';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import type { PgTransactionConfig } from 'drizzle-orm/pg-core';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';

/** SQL and transactions; for what is simple see `within`. */
export type Db = Pick<NodePgDatabase, 'execute' | 'transaction'>;
export interface Database {
  db: Db;
  pool: pg.Pool;
  close(): Promise<void>;
}

/** Every query a person starts is ended by the server after this long. */
const STATEMENT_TIMEOUT_MS = 8_000;
/** And a little before it, one that only waits for another who writes. */
const LOCK_TIMEOUT_MS = 7_000;
/**
 * So long a connection is waited for. A database that is away refuses at once; one that takes long is on a machine that
 * stands still for a while, and goes on with it.
 */
const CONNECTION_TIMEOUT_MS = 20_000;
/** So many connections stay where nobody asks: to make one takes longer than to answer. */
const KEPT = 4;

export function connect(url: string, size = 16): Database {
  // See docs/decisions/search.md: plans are made for the values at hand, on one process, without compiling, and never
  // by reading a table of text vectors through: the planner does not know what it costs to fetch them. A query whose
  // server died ends within a second, and lets its locks go.
  const pool = new pg.Pool({
    connectionString: url,
    max: size,
    min: Math.min(KEPT, size),
    connectionTimeoutMillis: CONNECTION_TIMEOUT_MS,
    options: `-c jit=off -c plan_cache_mode=force_custom_plan -c max_parallel_workers_per_gather=0 -c enable_seqscan=off -c statement_timeout=${STATEMENT_TIMEOUT_MS} -c lock_timeout=${LOCK_TIMEOUT_MS} -c random_page_cost=1.1 -c client_connection_check_interval=1000`,
  });
  // A connection that ends (the database restarts) is replaced at the next query, whoever holds it meanwhile: the error
  // of the query is told to who asked it, that of the connection to nobody.
  pool.on('error', () => {});
  pool.on('connect', (client) => void client.on('error', () => {}));
  const db = drizzle(pool);
  return { db, pool, close: () => pool.end() };
}

/** Any number: the same in every server, so that one migrates and the others wait. */
const MIGRATING = 4_700_001;

/** Takes the schema to the newest form, however long that takes. */
export async function migrateUp(database: Database, folder: string): Promise<void> {
  const client = await database.pool.connect();
  try {
    await client.query('set statement_timeout = 0; set lock_timeout = 0');
    await client.query('select pg_advisory_lock($1)', [MIGRATING]);
    await migrate(drizzle(client), { migrationsFolder: folder });
  } finally {
    // Ended, not given back: its settings and its lock go with it.
    client.release(true);
  }
}

/** Why the database gave up (PostgreSQL 15, appendix A). */
export const GAVE_UP = { timeout: '57014', lock: '55P03', deadlock: '40P01' } as const;

/** Connection failures, no connection left, and the server going down or coming up (PostgreSQL 15, appendix A: 08, 53300, 57P). */
const UNAVAILABLE = /^(?:08|53300|57P0[1-3]|ECONN|EPIPE|ENOTFOUND|ETIMEDOUT)/;
/** The same as node-postgres says it, without a code. */
const UNCONNECTED =
  /^Connection terminated|^timeout exceeded when trying to connect|has encountered a connection error/;

/** Whether the error says that the database cannot be reached. */
export function isUnavailable(error: unknown): boolean {
  const { code, message, cause, errors } = (error ?? {}) as {
    code?: string;
    message?: string;
    cause?: unknown;
    errors?: unknown[];
  };
  return (
    UNAVAILABLE.test(code ?? '') ||
    UNCONNECTED.test(message ?? '') ||
    (cause !== undefined && isUnavailable(cause)) ||
    (errors?.some(isUnavailable) ?? false)
  );
}

/** No room is left on a disk: of the database (PostgreSQL 15, appendix A, 53100) or for files (errno 3). */
export function isFull(error: unknown): boolean {
  const { code, cause } = (error ?? {}) as { code?: string; cause?: unknown };
  return /^(?:53100|ENOSPC|EDQUOT)$/.test(code ?? '') || (cause !== undefined && isFull(cause));
}

/** PostgreSQL's code of an error, whatever it has come by way of. */
export function codeOf(error: unknown): string | undefined {
  const { code, cause } = (error ?? {}) as { code?: string; cause?: unknown };
  return (cause === undefined ? undefined : codeOf(cause)) ?? code;
}

export const idsOf = (found: { id: string }[]): string[] => found.map((f) => f.id);

/** How often a transaction is begun that the database gives up each time for another's sake. */
const MOST_TRIES = 3;
/** The other is woken only now: who begins again at once may take its row before it, and they stand as they stood. */
const LET_PASS_MS = 150;

/**
 * Runs the work in one transaction, the one way of opening it. Of two that wait for each other the database gives one
 * up: that one is done again when the other has had time to go on, so the work leaves nothing outside the database
 * that may not stand twice.
 */
export async function transact<T>(db: Db, work: (tx: Db) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries += 1) {
    try {
      return await once(db, work);
    } catch (error) {
      if (codeOf(error) !== GAVE_UP.deadlock || tries === MOST_TRIES) throw error;
      // Two that were both given up do not meet again at the same moment.
      await setTimeout(LET_PASS_MS * (1 + Math.random()));
    }
  }
}

/** Reads that all see the database as it is at the first of them. */
export async function snapshot<T>(db: Db, work: (tx: Db) => Promise<T>): Promise<T> {
  return once(db, work, { isolationLevel: 'repeatable read', accessMode: 'read only' });
}

/**
 * One transaction, on a connection that is given back whatever happens: left to Drizzle, one that was cut before the transaction
 * began would be kept for good, until none is left.
 */
async function once<T>(db: Db, work: (tx: Db) => Promise<T>, how?: PgTransactionConfig): Promise<T> {
  // Drizzle's transaction is the same as its database, but for the pool.
  const within = (session: Db): Promise<T> => session.transaction((tx) => work(tx as unknown as Db), how);
  const { $client: pool } = db as { $client?: unknown };
  if (!(pool instanceof pg.Pool)) return within(db);
  const client = await pool.connect();
  try {
    return await within(drizzle(client) as unknown as Db);
  } finally {
    client.release();
  }
}

/** Runs the work in one transaction as `transact` does, without the time limit of a person's query: for jobs. */
export async function withoutTimeout<T>(db: Db, work: (tx: Db) => Promise<T>): Promise<T> {
  return transact(db, async (tx) => {
    await tx.execute(sql`select set_config('statement_timeout', '0', true), set_config('lock_timeout', '0', true)`);
    return work(tx);
  });
}
