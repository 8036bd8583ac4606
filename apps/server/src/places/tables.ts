import { boolean, doublePrecision, index, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { CollectionWords } from '@pandecta/core/changes';
import { workspaceId } from '../database/columns.ts';

export const collections = pgTable(
  'collections',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    says: text('says'),
    until: jsonb('until').$type<CollectionWords['until']>(),
    rule: jsonb('rule').$type<CollectionWords['rule']>(),
    /** The group of tags it allows; null where any. */
    allows: text('allows'),
    /** The one member whose own it is and who alone sees it; null where it is all members'. */
    owner: uuid('owner'),
    present: boolean('present').notNull().default(true),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);

export const placements = pgTable(
  'placements',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    collectionId: uuid('collection_id').notNull(),
    /** The collection it stands under; null at the top. */
    parentId: uuid('parent_id'),
    /** Among those beside it, the lowest first; null where it stands by its name. */
    rank: doublePrecision('rank'),
    present: boolean('present').notNull().default(true),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);

export const collectionAncestors = pgTable(
  'collection_ancestors',
  {
    workspaceId: workspaceId(),
    collectionId: uuid('collection_id').notNull(),
    ancestorId: uuid('ancestor_id').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.collectionId, t.ancestorId] })],
);

export const collectionSources = pgTable(
  'collection_sources',
  {
    workspaceId: workspaceId(),
    collectionId: uuid('collection_id').notNull(),
    sourceId: uuid('source_id').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.collectionId, t.sourceId] }),
    index('collection_sources_source').on(t.workspaceId, t.sourceId),
  ],
);
