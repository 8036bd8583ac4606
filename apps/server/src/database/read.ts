/**
 * Reading what SQL text selects. A query says beside it what each of its columns is; a column that is not there, or is
 * something else, ends the query with an error that names it, instead of going on as what it is not.
 */
import type { SQL } from 'drizzle-orm';
import type { Db } from './connect.ts';

/** Whether a value is what a column is said to be. */
export interface Column<T> {
  is: string;
  holds: (value: unknown) => value is T;
}

/** What the columns of a query are, by their names. */
export type Columns = Record<string, Column<unknown>>;
/** A row of such columns. */
export type RowOf<C extends Columns> = { [K in keyof C]: C[K] extends Column<infer T> ? T : never };

const column = <T>(is: string, holds: (value: unknown) => boolean): Column<T> => ({
  is,
  holds: holds as Column<T>['holds'],
});

/** Text, ids and times; of one of some words where they are named. */
export const text = <T extends string = string>(): Column<T> => column('text', (v) => typeof v === 'string');
export const number = column<number>('a number', (v) => typeof v === 'number');
export const truth = column<boolean>('true or false', (v) => typeof v === 'boolean');
export const bytes = column<Buffer>('bytes', (v) => v instanceof Uint8Array);
/** What a column of JSON holds is what was written into it: it is checked where it came in. */
export const json = <T>(): Column<T> => column('JSON', (v) => v !== undefined);
export const list = <T>(of: Column<T>): Column<T[]> =>
  column(`a list of ${of.is}`, (v) => Array.isArray(v) && v.every(of.holds));
export const orNull = <T>(of: Column<T>): Column<T | null> =>
  column(`${of.is} or null`, (v) => v === null || of.holds(v));

/**
 * Runs SQL and gives its rows.
 * @throws TypeError where a column is not what it is said to be
 */
export async function rows<C extends Columns>(db: Pick<Db, 'execute'>, columns: C, query: SQL): Promise<RowOf<C>[]> {
  const found = (await db.execute(query)).rows;
  const wanted = Object.entries(columns);
  for (const row of found)
    for (const [name, { is, holds }] of wanted)
      if (!holds(row[name])) throw new TypeError(`the column “${name}” of a query is ${typeof row[name]}, not ${is}`);
  return found as RowOf<C>[];
}

/** The first of the rows. */
export async function one<C extends Columns>(
  db: Pick<Db, 'execute'>,
  columns: C,
  query: SQL,
): Promise<RowOf<C> | undefined> {
  return (await rows(db, columns, query))[0];
}
