import { index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { ChangeKind, SubjectKind } from '@pandecta/core/changes';
import { now, workspaceId } from '../database/columns.ts';

export const changes = pgTable(
  'changes',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    actorId: uuid('actor_id').notNull(),
    at: now('at'),
    change: jsonb('change').$type<Record<string, unknown>>().notNull(),
    /** Its kind, and how many sources it touches: known without reading the change. */
    kind: text('kind').$type<ChangeKind>().notNull(),
    size: integer('size').notNull(),
    says: text('says').notNull(),
    undoes: uuid('undoes'),
    undoneBy: uuid('undone_by'),
    /** The earlier edits of the same fields that it took in: whoever knows one of them means this one. */
    joined: uuid('joined').array().notNull().default([]),
    /** The kinds of change it is made of. */
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
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.kind, t.subjectId, t.changeId] }),
    index('change_subjects_change').on(t.workspaceId, t.changeId),
  ],
);
