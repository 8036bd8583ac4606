import { index, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { SubjectKind } from '@pandecta/core/changes';
import { now, workspaceId } from '../database/columns.ts';

export const changes = pgTable(
  'changes',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    actorId: uuid('actor_id').notNull(),
    at: now('at'),
    change: jsonb('change').$type<Record<string, unknown>>().notNull(),
    says: text('says').notNull(),
    undoes: uuid('undoes'),
    undoneBy: uuid('undone_by'),
    /** The kinds of change it is made of: what one needs not unpack it to know. */
    kinds: text('kinds').array(),
    /** The one member whose own it is, and who alone hears of it. */
    owner: uuid('owner'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] }), index('changes_actor').on(t.workspaceId, t.actorId, t.id)],
);

/** What each change touched: sources, collections, marks, tags. */
export const changeSubjects = pgTable(
  'change_subjects',
  {
    workspaceId: workspaceId(),
    kind: text('kind').$type<SubjectKind>().notNull(),
    subjectId: uuid('subject_id').notNull(),
    changeId: uuid('change_id').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.kind, t.subjectId, t.changeId] })],
);
