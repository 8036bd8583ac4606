import { sql } from 'drizzle-orm';
import { boolean, index, pgTable, primaryKey, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core';
import { workspaceId } from '../database/columns.ts';

export const tags = pgTable(
  'tags',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    subject: boolean('subject').notNull(),
    /** What it means in this workspace. */
    says: text('says').notNull().default(''),
    /** Under which heading of the vocabulary it stands; empty for none. */
    heading: text('heading').notNull().default(''),
    /** The term it stands under as the narrower one. */
    broader: uuid('broader'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    uniqueIndex('tags_name').on(t.workspaceId, t.subject, sql`lower(${t.name})`),
  ],
);

export const sourceTags = pgTable(
  'source_tags',
  {
    workspaceId: workspaceId(),
    sourceId: uuid('source_id').notNull(),
    tagId: uuid('tag_id').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.sourceId, t.tagId] }),
    index('source_tags_tag').on(t.workspaceId, t.tagId),
  ],
);
