import { index, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { Relation } from '@pandecta/core/changes';
import { now, workspaceId } from '../database/columns.ts';

/** How sources stand to each other, as people said it. */
export const relations = pgTable(
  'relations',
  {
    workspaceId: workspaceId(),
    fromId: uuid('from_id').notNull(),
    toId: uuid('to_id').notNull(),
    as: text('as').$type<Relation>().notNull(),
    /** Why, and on which page. */
    note: text('note').notNull().default(''),
    page: text('page').notNull().default(''),
    at: now('at'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.fromId, t.toId, t.as] }),
    index('relations_to').on(t.workspaceId, t.toId),
  ],
);
