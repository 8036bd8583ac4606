import { index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { ImportMessage } from '@pandecta/contract';
import { now, workspaceId } from '../database/columns.ts';

export const imports = pgTable(
  'imports',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    jobId: uuid('job_id').notNull(),
    title: text('title').notNull(),
    collectionId: uuid('collection_id'),
    /** The files as they came: [{ name, sha256, bytes }]. */
    inputs: jsonb('inputs').notNull(),
    report: jsonb('report'),
    changeId: uuid('change_id'),
    madeBy: uuid('made_by').notNull(),
    madeAt: now('made_at'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] }), index('imports_job').on(t.workspaceId, t.jobId)],
);

export const importMessages = pgTable(
  'import_messages',
  {
    workspaceId: workspaceId(),
    importId: uuid('import_id').notNull(),
    ordinal: integer('ordinal').notNull(),
    message: jsonb('message').$type<ImportMessage>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.importId, t.ordinal] })],
);
