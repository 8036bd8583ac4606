import { sql } from 'drizzle-orm';
import { boolean, index, integer, jsonb, pgTable, primaryKey, real, text, uuid } from 'drizzle-orm/pg-core';
import type { MarkOrigin } from '@pandecta/core/annotations';
import type { Shape } from '@pandecta/core/marks';
import type { Mark } from '@pandecta/contract';
import { now, workspaceId } from '../database/columns.ts';

export const marks = pgTable(
  'marks',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    sourceId: uuid('source_id').notNull(),
    fileId: uuid('file_id').notNull(),
    page: integer('page').notNull(),
    senseId: uuid('sense_id').notNull(),
    shape: text('shape').$type<Shape>().notNull().default('highlight'),
    /** The member who alone sees it; null where everyone does. */
    owner: uuid('owner'),
    quote: jsonb('quote').$type<Mark['quote']>().notNull(),
    rects: jsonb('rects').$type<Mark['rects']>().notNull(),
    /** How far down its page it begins. */
    top: real('top').generatedAlwaysAs(sql`(rects->0->>'y0')::real`),
    /** It could not be placed again where its document changed. */
    unplaced: boolean('unplaced').notNull().default(false),
    /** Of one that was read from an annotation of the file. */
    origin: jsonb('origin').$type<MarkOrigin>(),
    gloss: text('gloss').notNull().default(''),
    /** What is searched of it, in small letters. */
    words: text('words')
      .notNull()
      .generatedAlwaysAs(sql`lower((quote->>'exact') || ' ' || gloss)`),
    present: boolean('present').notNull().default(true),
    madeBy: uuid('made_by').notNull(),
    madeAt: now('made_at'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    index('marks_file').on(t.workspaceId, t.fileId),
    index('marks_source').on(t.workspaceId, t.sourceId),
  ],
);
