import { boolean, index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { GatherSettings } from '@pandecta/contract';
import { bytea, when, now, workspaceId } from '../database/columns.ts';

export const users = pgTable('users', {
  id: uuid('id').primaryKey(),
  email: text('email').notNull().unique(),
  name: text('name').notNull(),
  passwordHash: text('password_hash').notNull(),
});

export const sessions = pgTable('sessions', {
  tokenHash: bytea('token_hash').primaryKey(),
  userId: uuid('user_id')
    .notNull()
    .references(() => users.id, { onDelete: 'cascade' }),
  csrf: text('csrf').notNull(),
  expiresAt: when('expires_at').notNull(),
});

export const signInAttempts = pgTable('sign_in_attempts', { who: text('who').notNull(), at: now('at') }, (t) => [
  index('sign_in_attempts_who').on(t.who, t.at),
]);

export interface WorkspaceSettings {
  gathering?: GatherSettings;
  /** The languages text is recognised in, by Tesseract's names. */
  recognition?: string[];
  /** How many days removed sources wait in the bin. */
  binDays?: number;
}

export const workspaces = pgTable('workspaces', {
  id: uuid('id').primaryKey(),
  /** A short number that leads every lexeme of the workspace in the text indexes, and names the sequence its sources are numbered from. */
  number: integer('number').notNull().generatedAlwaysAsIdentity(),
  name: text('name').notNull(),
  /** Counts the writes that altered derived rows; see `derivations`. */
  revision: integer('revision').notNull().default(0),
  /** Counts the changes to where collections stand. */
  tree: integer('tree').notNull().default(0),
  /** What its stewards chose; see the contract's settings. */
  settings: jsonb('settings').$type<WorkspaceSettings>().notNull().default({}),
});

export const members = pgTable(
  'members',
  {
    workspaceId: workspaceId().references(() => workspaces.id),
    userId: uuid('user_id')
      .notNull()
      .references(() => users.id),
    role: text('role').notNull(),
    /** The one collection they see, with what stands below it; null where they see the whole workspace. */
    bounds: uuid('bounds'),
    /** Whether what they ask of the sources here is logged. */
    logsAsked: boolean('logs_asked').notNull().default(false),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.userId] }), index('members_user').on(t.userId)],
);

/** Keys that open the ways in, for a browser to hold: of each only its hash is kept. */
export const gatherKeys = pgTable(
  'gather_keys',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    userId: uuid('user_id').notNull(),
    name: text('name').notNull(),
    keyHash: bytea('key_hash').notNull().unique(),
    madeAt: now('made_at'),
    usedAt: when('used_at'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);
