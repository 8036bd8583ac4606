import { boolean, index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { DocNode, How, Linked, Origin } from '@pandecta/core/notes';
import { now, tsvector, when, workspaceId } from '../database/columns.ts';

export const notes = pgTable(
  'notes',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    title: text('title').notNull(),
    text: jsonb('text').$type<DocNode>().notNull(),
    event: text('event'),
    about: uuid('about').array().notNull(),
    tags: uuid('tags').array().notNull(),
    from: jsonb('origins').$type<Origin[]>().notNull(),
    /** The member who alone sees it; null where everyone does. */
    owner: uuid('owner'),
    present: boolean('present').notNull().default(false),
    madeBy: uuid('made_by').notNull(),
    madeAt: now('made_at'),
    changedAt: when('changed_at').notNull().defaultNow(),
    /** What follows is derived of the above with each write. */
    plain: text('plain').notNull(),
    /** Days from 1970-01-01; null where there is no date that is read. */
    eventFrom: integer('event_from'),
    eventTo: integer('event_to'),
    vector: tsvector('vector').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    index('notes_vector').using('gin', t.vector),
    index('notes_about').using('gin', t.about),
  ],
);

/** The sources a note quotes, comes from or links to: derived. */
export const noteSources = pgTable(
  'note_sources',
  {
    workspaceId: workspaceId(),
    /** Made of note and source: by it the note is found among what is searched of a source. */
    id: uuid('id').notNull(),
    noteId: uuid('note_id').notNull(),
    sourceId: uuid('source_id').notNull(),
    /** Its place among the sources of the note. */
    place: integer('place').notNull(),
    fileId: uuid('file_id'),
    page: integer('page'),
    cited: text('cited').notNull(),
    markId: uuid('mark_id'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.noteId, t.sourceId] }), index('note_sources_source').on(t.workspaceId, t.sourceId), index('note_sources_id').on(t.workspaceId, t.id)], // prettier-ignore
);

/** What a note links to: derived. */
export const noteLinks = pgTable(
  'note_links',
  {
    workspaceId: workspaceId(),
    noteId: uuid('note_id').notNull(),
    to: text('linked').$type<Linked>().notNull(),
    targetId: uuid('target_id').notNull(),
    how: text('how').$type<How | ''>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.noteId, t.targetId, t.how] }),
    index('note_links_target').on(t.workspaceId, t.targetId),
  ],
);
