import { sql } from 'drizzle-orm';
import { boolean, index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { JobState } from '@pandecta/contract';
import { now, workspaceId } from '../database/columns.ts';

export const jobs = pgTable(
  'jobs',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    kind: text('kind').notNull(),
    title: text('title').notNull(),
    state: text('state').$type<JobState>().notNull().default('waiting'),
    done: integer('done').notNull().default(0),
    total: integer('total').notNull().default(0),
    says: text('says').notNull().default(''),
    cancel: boolean('cancel').notNull().default(false),
    /** The wish that it rests. */
    hold: boolean('hold').notNull().default(false),
    /** How often a server has begun with it. */
    taken: integer('taken').notNull().default(0),
    /** What is to be done, until it is done; and what came of it. */
    input: jsonb('input'),
    result: jsonb('result'),
    madeBy: uuid('made_by').notNull(),
    madeAt: now('made_at'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    index('jobs_going')
      .on(t.kind, t.id)
      .where(sql`state in ('waiting', 'running')`),
  ],
);
