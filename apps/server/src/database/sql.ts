/** Pieces of SQL that are needed in many places. */
import { sql, type SQL } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';

type ColumnType = 'uuid' | 'text' | 'int' | 'bool' | 'real' | 'float8';

/** An array as one parameter, however long: `${array(ids, 'uuid')}` becomes `$1::uuid[]`. */
export function array(values: readonly unknown[], type: ColumnType): SQL {
  return sql`${sql.param(values)}::${sql.raw(type)}[]`;
}

/** Whether a column is one of very many values, which go as one parameter. */
export const oneOf = (column: PgColumn, values: readonly unknown[]): SQL =>
  sql`${column} = any(${array(values, column.getSQLType() as ColumnType)})`;

/**
 * Rows as a table, a column at a time, each an array: `from ${table('u', { id: ['uuid', ids], n: ['int', counts] })}`.
 * Hundreds of thousands of rows go as quickly as one.
 */
export function table(name: string, columns: Record<string, [type: ColumnType, values: readonly unknown[]]>): SQL {
  const arrays = Object.values(columns).map(([type, values]) => array(values, type));
  const names = Object.keys(columns).map((c) => sql.identifier(c));
  return sql`unnest(${sql.join(arrays, sql`, `)}) as ${sql.identifier(name)}(${sql.join(names, sql`, `)})`;
}

/** A value of LIKE that means just this text: no wildcard in it, none to be escaped by the caller. */
export const literally = (text: string): string => text.replace(/[\\%_]/g, '\\$&');
