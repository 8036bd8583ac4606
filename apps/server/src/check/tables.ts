import { boolean, index, integer, pgTable, primaryKey, real, text, unique, uuid } from 'drizzle-orm/pg-core';
import type { Settled } from '@pandecta/core/changes';
import { now, when, workspaceId } from '../database/columns.ts';

/** What proofing was told once and for good: rules and findings set aside, words that keep their form. */
export const settled = pgTable(
  'settled',
  {
    workspaceId: workspaceId(),
    what: text('what').$type<Settled>().notNull(),
    /** A rule by its id, or a word as it is written. */
    name: text('name').notNull(),
    /** Null for all sources. */
    sourceId: uuid('source_id'),
    at: now('at'),
  },
  (t) => [unique('settled_once').on(t.workspaceId, t.what, t.name, t.sourceId).nullsNotDistinct()],
);

/** The keys by which a source meets those that may be of the same work (core/matching/blocks), each mixed with its workspace. */
export const sourceMeets = pgTable(
  'source_meets',
  {
    workspaceId: workspaceId(),
    sourceId: uuid('source_id').notNull(),
    keys: integer('keys').array().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.sourceId] }),
    // Looked through for each source that comes: nothing may wait beside the index.
    index('source_meets_keys').using('gin', t.keys).with({ fastupdate: false }),
  ],
);

/** Two sources that may be of one work, each pair once. Derived by `compare.ts`, never edited. */
export const likelyPairs = pgTable(
  'likely_pairs',
  {
    workspaceId: workspaceId(),
    /** The lower of the two ids. */
    sourceId: uuid('source_id').notNull(),
    otherId: uuid('other_id').notNull(),
    /** From 0 to 1. */
    probability: real('probability').notNull(),
    /** They hold the very same file. */
    sameFile: boolean('same_file').notNull(),
    at: now('at'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.sourceId, t.otherId] }),
    index('likely_pairs_other').on(t.workspaceId, t.otherId),
  ],
);

/** Sources that are to be compared with all others. */
export const compareQueue = pgTable(
  'compare_queue',
  {
    workspaceId: workspaceId(),
    sourceId: uuid('source_id').notNull(),
    /** How often comparing it failed, and until when it stands aside for that. */
    failures: integer('failures').notNull().default(0),
    after: when('after'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.sourceId] })],
);
