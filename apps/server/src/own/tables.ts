import { foreignKey, jsonb, primaryKey, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import type { OpenDocuments } from '@pandecta/contract';
import type { ReadingState } from '@pandecta/core/changes';
import { workspaceId } from '../database/columns.ts';
import { sources } from '../records/tables.ts';

const columns = () => ({
  workspaceId: workspaceId(),
  sourceId: uuid('source_id').notNull(),
  userId: uuid('user_id').notNull(),
});

/** How far each member has read sources; no row where they have said nothing. */
export const sourceReading = pgTable(
  'source_reading',
  { ...columns(), state: text('state').$type<ReadingState>().notNull() },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.sourceId, t.userId] }),
    foreignKey({ columns: [t.workspaceId, t.sourceId], foreignColumns: [sources.workspaceId, sources.id] }).onDelete(
      'cascade',
    ),
  ],
);

/** The stars members gave to sources. */
export const sourceStars = pgTable('source_stars', columns(), (t) => [
  primaryKey({ columns: [t.workspaceId, t.sourceId, t.userId] }),
  foreignKey({ columns: [t.workspaceId, t.sourceId], foreignColumns: [sources.workspaceId, sources.id] }).onDelete(
    'cascade',
  ),
]);

/** The documents each member has open, and their place in each. */
export const openDocuments = pgTable(
  'open_documents',
  {
    workspaceId: workspaceId(),
    userId: uuid('user_id').notNull(),
    kept: jsonb('kept').$type<OpenDocuments>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.userId] })],
);
