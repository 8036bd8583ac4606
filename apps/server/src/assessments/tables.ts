import { index, integer, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { workspaceId } from '../database/columns.ts';

/** The labels sources bear. */
export const sourceLabels = pgTable(
  'source_labels',
  { workspaceId: workspaceId(), sourceId: uuid('source_id').notNull(), labelId: uuid('label_id').notNull() },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.sourceId, t.labelId] }),
    index('source_labels_label').on(t.workspaceId, t.labelId),
  ],
);

/** How much sources are worth to the workspace, 1 to 5; no row where nobody said. */
export const sourceRatings = pgTable(
  'source_ratings',
  { workspaceId: workspaceId(), sourceId: uuid('source_id').notNull(), rating: integer('rating').notNull() },
  (t) => [primaryKey({ columns: [t.workspaceId, t.sourceId] })],
);

/** Sources that are to be checked again, each with why. */
export const sourceRechecks = pgTable(
  'source_rechecks',
  { workspaceId: workspaceId(), sourceId: uuid('source_id').notNull(), reason: text('reason').notNull() },
  (t) => [primaryKey({ columns: [t.workspaceId, t.sourceId] })],
);
