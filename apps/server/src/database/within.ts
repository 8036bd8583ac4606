/**
 * Simple reads and writes, by Drizzle's builder. `Db` itself has no builder: what belongs to a workspace is reached by
 * `within`, which puts the workspace into every condition and every row, so that none can forget it.
 */
import { and, eq, sql, type GetColumnData, type InferInsertModel, type SQL } from 'drizzle-orm';
import type { NodePgDatabase } from 'drizzle-orm/node-postgres';
import type { PgColumn, PgTable, PgUpdateSetSource } from 'drizzle-orm/pg-core';
import type { Db } from './connect.ts';

/** A table whose rows belong to a workspace each. */
type Scoped = PgTable & { workspaceId: PgColumn };

/** One of a table's own columns: of another table it does not compile. */
type ColumnOf<T extends Scoped> = T['_']['columns'][keyof T['_']['columns']];
type Selection<T extends Scoped = Scoped> = Record<string, ColumnOf<T> | SQL>;
type Found<F extends Record<string, PgColumn | SQL>> = {
  [K in keyof F]: F[K] extends PgColumn ? GetColumnData<F[K]> : F[K] extends SQL<infer T> ? T : never;
};
/** A row as it is written: the workspace is known. */
export type Row<T extends Scoped> = Omit<InferInsertModel<T>, 'workspaceId'>;

interface How<T extends Scoped> {
  /** Sorted by these. */
  by?: (ColumnOf<T> | SQL)[];
  most?: number;
  lock?: 'update';
}

type Builder = NodePgDatabase;

/** The builder itself: for what belongs to no workspace, or is one person's over all of theirs. */
export const beyond = (db: Db): Builder => db as Builder;

export const within = (db: Db, workspaceId: string): Within => new Within(beyond(db), workspaceId);

class Within {
  constructor(
    private readonly db: Builder,
    private readonly workspaceId: string,
  ) {}

  async all<T extends Scoped, F extends Selection<T>>(
    table: T,
    fields: F,
    where?: SQL,
    { by = [], most, lock }: How<T> = {},
  ): Promise<Found<F>[]> {
    let query = this.db
      .select(fields as Record<string, PgColumn | SQL>)
      .from(table as PgTable)
      .where(this.only(table, where))
      .$dynamic();
    if (by.length) query = query.orderBy(...by);
    if (most !== undefined) query = query.limit(most);
    if (lock) query = query.for(lock);
    return (await query) as Found<F>[];
  }

  async first<T extends Scoped, F extends Selection<T>>(
    table: T,
    fields: F,
    where?: SQL,
    how: How<T> = {},
  ): Promise<Found<F> | undefined> {
    return (await this.all(table, fields, where, { ...how, most: 1 }))[0];
  }

  async has(table: Scoped, where?: SQL): Promise<boolean> {
    return (await this.first(table, { workspace: table.workspaceId }, where)) !== undefined;
  }

  /** Writes a row, or a few: each value is a parameter. */
  insert<T extends Scoped>(table: T, ...values: Row<T>[]) {
    return this.db
      .insert(table)
      .values(values.map((v) => ({ ...v, workspaceId: this.workspaceId })) as InferInsertModel<T>[]);
  }

  update<T extends Scoped>(table: T, values: PgUpdateSetSource<T>, where?: SQL) {
    return this.db.update(table).set(values).where(this.only(table, where));
  }

  delete<T extends Scoped>(table: T, where?: SQL) {
    return this.db.delete(table).where(this.only(table, where));
  }

  /** In brackets: what is written as SQL may have an “or” in it. */
  private only(table: Scoped, where: SQL | undefined): SQL {
    return and(eq(table.workspaceId, this.workspaceId), where && sql`(${where})`)!;
  }
}
