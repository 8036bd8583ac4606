import { sql } from 'drizzle-orm';
import { index, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { Entry, List } from '@pandecta/core/changes';
import { workspaceId } from '../database/columns.ts';

/** The entries of the workspace's short lists, each written as a whole. */
export const entries = pgTable(
  'entries',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    list: text('list').$type<List>().notNull(),
    value: jsonb('value').$type<Entry>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.list, t.id] }),
    index('entries_named').on(t.workspaceId, t.list, sql`lower(${t.value}->>'name')`),
  ],
);
