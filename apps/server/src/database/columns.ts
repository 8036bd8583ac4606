/** Columns of tables that come again and again. */
import { sql } from 'drizzle-orm';
import { customType, timestamp, uuid } from 'drizzle-orm/pg-core';

export const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
export const tsvector = customType<{ data: string }>({ dataType: () => 'tsvector' });
export const when = (name: string) => timestamp(name, { withTimezone: true, mode: 'string' });
export const now = (name: string) =>
  when(name)
    .notNull()
    .default(sql`now()`);
/** Leads the key of every table but those of accounts. */
export const workspaceId = () => uuid('workspace_id').notNull();
