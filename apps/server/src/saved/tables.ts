import { boolean, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { Ask } from '@pandecta/contract';
import { now, workspaceId } from '../database/columns.ts';

/** The saved searches each member watches, and what of their answers they have seen. */
export const savedWatches = pgTable(
  'saved_watches',
  {
    workspaceId: workspaceId(),
    saved: uuid('saved').notNull(),
    member: uuid('member').notNull(),
    /** When they looked last. */
    since: now('since'),
    mail: boolean('mail').notNull().default(false),
    /** Why they could not be told by mail, where they could not. */
    says: text('says').notNull().default(''),
    /** How often in a row its question could not be asked; after too many no mail is sent any more. */
    failures: integer('failures').notNull().default(0),
    /** The numbers of the sources they saw, and of those they were told of since. */
    seen: integer('seen').array().notNull().default([]),
    told: integer('told').array().notNull().default([]),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.saved, t.member] })],
);

/** What members who log it asked of the sources here. */
export const askedHere = pgTable(
  'asked_here',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    member: uuid('member').notNull(),
    at: now('at'),
    words: text('words').notNull(),
    ask: jsonb('ask').$type<Ask>().notNull(),
    found: integer('found').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);
