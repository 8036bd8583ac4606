import { index, pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core';
import type { Relation, Settled } from '@pandecta/core/changes';
import { now, workspaceId } from '../database/columns.ts';

/** How sources stand to each other, as people said it. */
export const relations = pgTable(
  'relations',
  {
    workspaceId: workspaceId(),
    fromId: uuid('from_id').notNull(),
    toId: uuid('to_id').notNull(),
    as: text('as').$type<Relation>().notNull(),
    at: now('at'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.fromId, t.toId, t.as] }),
    index('relations_to').on(t.workspaceId, t.toId),
  ],
);

/** What proofing was told once and for good: rules and findings set aside, words that keep their form. */
export const settled = pgTable(
  'settled',
  {
    workspaceId: workspaceId(),
    what: text('what').$type<Settled>().notNull(),
    /** A rule by its id, or a word as it is written. */
    name: text('name').notNull(),
    /** Null for all sources. */
    sourceId: uuid('source_id'),
    at: now('at'),
  },
  (t) => [unique('settled_once').on(t.workspaceId, t.what, t.name, t.sourceId).nullsNotDistinct()],
);
