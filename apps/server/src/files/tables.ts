import { sql } from 'drizzle-orm';
import {
  bigint,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  real,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import type { FileState } from '@pandecta/contract';
import type { PageState } from '@pandecta/core/changes';
import type { Annotation } from '@pandecta/core/annotations';
import type { NumberedParagraph, Numbering, NumberRun } from '@pandecta/core/page-numbers';
import { bytea, workspaceId } from '../database/columns.ts';

/** The numbers of a document's pages, as far as its file says them. */
export interface ReadNumbering extends Pick<Numbering, 'labels' | 'printed'> {
  /** Not looked for where it is missing. */
  paragraphs?: NumberedParagraph[];
}

export interface TakenFrom {
  file: string;
  pages: number[];
}

export const files = pgTable(
  'files',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    sha256: text('sha256').notNull(),
    name: text('name').notNull(),
    bytes: bigint('bytes', { mode: 'number' }).notNull(),
    mediaType: text('media_type').notNull(),
    state: text('state').$type<FileState | 'waiting'>().notNull(),
    pages: integer('pages').notNull().default(0),
    /** What is known of the numbers of its pages; null where they were not looked at yet. */
    numbering: jsonb('numbering').$type<ReadNumbering>(),
    /** What readers wrote on its pages, as it came; null where it was not looked for. */
    annotations: jsonb('annotations').$type<Annotation[]>(),
    /** As a person set them; null where nobody did. */
    numberedByHand: jsonb('numbered_by_hand').$type<NumberRun[]>(),
    /** Of one made of pages of another: which file, and which pages of it, counted from 1. */
    takenFrom: jsonb('taken_from').$type<TakenFrom>(),
    /** Of a link in place of a file: where it leads. */
    address: text('address'),
    /** When a source let go of it last; null where none ever did. */
    releasedAt: timestamp('released_at', { withTimezone: true }),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    uniqueIndex('files_sha').on(t.workspaceId, t.sha256),
    index('files_content').on(t.sha256),
    index('files_taken')
      .on(t.workspaceId, sql`(${t.takenFrom}->>'file')`)
      .where(sql`${t.takenFrom} is not null`),
  ],
);

export const sourceFiles = pgTable(
  'source_files',
  {
    workspaceId: workspaceId(),
    sourceId: uuid('source_id').notNull(),
    fileId: uuid('file_id').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.sourceId, t.fileId] }),
    index('source_files_file').on(t.workspaceId, t.fileId),
  ],
);

export const pages = pgTable(
  'pages',
  {
    workspaceId: workspaceId(),
    fileId: uuid('file_id').notNull(),
    number: integer('number').notNull(),
    width: real('width').notNull(),
    height: real('height').notNull(),
    text: text('text').notNull(),
    words: bytea('words').notNull(),
    /** How sure the recognition was of each word, in percent, a byte each; 255 where nothing is known. Null where the file had its words. */
    confidence: bytea('confidence'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.fileId, t.number] })],
);

/** Pages some lines of which were corrected, as they were read first. */
export const pagesAsRead = pgTable(
  'pages_as_read',
  {
    workspaceId: workspaceId(),
    fileId: uuid('file_id').notNull(),
    number: integer('number').notNull(),
    text: text('text').notNull(),
    words: bytea('words').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.fileId, t.number] })],
);

/** Lines as a person corrected them, each by its place among those that were read first. */
export const corrections = pgTable(
  'corrections',
  {
    workspaceId: workspaceId(),
    fileId: uuid('file_id').notNull(),
    page: integer('page').notNull(),
    line: integer('line').notNull(),
    text: text('text').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.fileId, t.page, t.line] })],
);

/** What was decided of pages while going through them; no row where nothing was. */
export const pageStates = pgTable(
  'page_states',
  {
    workspaceId: workspaceId(),
    fileId: uuid('file_id').notNull(),
    page: integer('page').notNull(),
    state: jsonb('state').$type<PageState>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.fileId, t.page] })],
);

/** Passwords by which members opened locked files, sealed (passwords.ts). */
export const filePasswords = pgTable(
  'file_passwords',
  {
    workspaceId: workspaceId(),
    userId: uuid('user_id').notNull(),
    fileId: uuid('file_id').notNull(),
    sealed: text('sealed').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.userId, t.fileId] })],
);
