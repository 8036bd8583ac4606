import { boolean, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { ProtocolName } from '@pandecta/core/catalogues';
import { now, workspaceId } from '../database/columns.ts';

/** Outside catalogues, as a steward added them. */
export const catalogues = pgTable(
  'catalogues',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    protocol: text('protocol').$type<ProtocolName>().notNull(),
    address: text('address').notNull(),
    present: boolean('present').notNull().default(true),
    /** What went wrong last, and when; the last ones first. */
    errors: jsonb('errors').$type<{ at: string; says: string }[]>().notNull().default([]),
    madeAt: now('made_at'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);
