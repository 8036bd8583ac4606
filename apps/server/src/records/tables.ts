import { sql } from 'drizzle-orm';
import { index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { Presence } from '@pandecta/core/changes';
import type { SourceRecord } from '@pandecta/core/source';
import { now, workspaceId } from '../database/columns.ts';

export const sources = pgTable(
  'sources',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    record: jsonb('record').$type<SourceRecord>().notNull(),
    provenance: jsonb('provenance').notNull().default({}),
    presence: text('presence').$type<Presence>().notNull().default('live'),
    version: integer('version').notNull().default(1),
    addedAt: now('added_at'),
    changedAt: now('changed_at'),
    addedBy: uuid('added_by').notNull(),
    importId: uuid('import_id'),
    /** The file that is opened first, where one was said to be. */
    mainFile: uuid('main_file'),
    /** The source it was merged into, where it is `merged`. */
    mergedInto: uuid('merged_into'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    index('sources_waiting')
      .on(t.workspaceId, t.importId)
      .where(sql`presence = 'intake'`),
    index('sources_without_key')
      .on(t.workspaceId)
      .where(sql`not (record ? 'citation-key')`),
    index('sources_merged')
      .on(t.workspaceId, t.mergedInto)
      .where(sql`merged_into is not null`),
  ],
);

export const sourceKeys = pgTable(
  'source_keys',
  {
    workspaceId: workspaceId(),
    key: text('key').notNull(),
    sourceId: uuid('source_id').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.key, t.sourceId] }),
    index('source_keys_source').on(t.workspaceId, t.sourceId),
  ],
);

/** Of which ends of access whoever brought a document in was told. */
export const accessReminders = pgTable(
  'access_reminders',
  {
    workspaceId: workspaceId(),
    sourceId: uuid('source_id').notNull(),
    /** The last day, as "2027-03-31". */
    until: text('until').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.sourceId, t.until] })],
);
