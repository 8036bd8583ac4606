import { boolean, index, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { now, workspaceId } from '../database/columns.ts';

/** What members write about the whole of a source. */
export const glosses = pgTable(
  'glosses',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    sourceId: uuid('source_id').notNull(),
    /** The member who alone sees it; null where everyone does. */
    owner: uuid('owner'),
    text: text('text').notNull().default(''),
    present: boolean('present').notNull().default(true),
    madeBy: uuid('made_by'),
    madeAt: now('made_at'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] }), index('glosses_source').on(t.workspaceId, t.sourceId)],
);
