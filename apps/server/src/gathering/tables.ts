import { index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { Destination, ImportMessage, Way } from '@pandecta/contract';
import type { Span } from '@pandecta/core/references';
import type { SourceRecord } from '@pandecta/core/source';
import { now, when, workspaceId } from '../database/columns.ts';
import type { Found } from '../catalogues/look-up.ts';
import type { FileInput, Input } from './inputs.ts';
import type { Prepared } from './prepare/candidate.ts';

export const imports = pgTable(
  'imports',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    jobId: uuid('job_id').notNull(),
    title: text('title').notNull(),
    /** What came, as it came: files, and parts of what was typed. */
    inputs: jsonb('inputs').$type<Input[]>().notNull(),
    /** Where it came from, in a word for a person: "Pasted list", "The Sallow Packet, from the browser". */
    way: text('way').$type<Way>().notNull().default('files'),
    /** Where it goes: collections, tags, reading state, and what was noted with it. */
    destination: jsonb('destination').$type<Destination>(),
    /** Whether what came waits in the intake, or goes straight to the sources; by the workspace's setting where it is null. */
    through: text('through').$type<'intake' | 'straight'>(),
    report: jsonb('report'),
    changeId: uuid('change_id'),
    madeBy: uuid('made_by').notNull(),
    madeAt: now('made_at'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] }), index('imports_job').on(t.workspaceId, t.jobId)],
);

/** Files that were sent for a gathering that has not begun: a drop of very many comes in shares. */
export const uploads = pgTable(
  'uploads',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    userId: uuid('user_id').notNull(),
    input: jsonb('input').$type<FileInput>().notNull(),
    at: now('at'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);

export const importMessages = pgTable(
  'import_messages',
  {
    workspaceId: workspaceId(),
    importId: uuid('import_id').notNull(),
    ordinal: integer('ordinal').notNull(),
    message: jsonb('message').$type<ImportMessage>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.importId, t.ordinal] })],
);

/** What was read of an import's inputs, until it has ended: one that rested, or whose server died, goes on from there. */
export const importReadings = pgTable(
  'import_readings',
  {
    workspaceId: workspaceId(),
    importId: uuid('import_id').notNull(),
    /** The place of the input among those of the gathering. */
    ordinal: integer('ordinal').notNull(),
    prepared: jsonb('prepared').$type<Omit<Prepared, 'input'>>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.importId, t.ordinal] })],
);

/** Where a source came from: kept with it for good, beside the import it came with. */
export const sourceOrigins = pgTable(
  'source_origins',
  {
    workspaceId: workspaceId(),
    sourceId: uuid('source_id').notNull(),
    /** Its text as it came, where it was read from a text, and which stretch of it is which field. */
    came: text('came'),
    spans: jsonb('spans').$type<Span[]>(),
    /** The catalogue or database, its number there, and the words it was found by. */
    found: jsonb('found').$type<Found>(),
    /** The works the page lists, of which one may choose. */
    items: jsonb('items').$type<SourceRecord[]>(),
    /** What became of looking it up: 'found', 'not found', 'silent', or null where there was nothing to look up. */
    lookedUp: text('looked_up'),
    /** Why the record could not be completed: which service did not answer, or which check digit is wrong. */
    trouble: text('trouble'),
    /** The folder it came in, where folders become collections: it is made once something of it is taken in. */
    folder: text('folder'),
    /** How often it was asked for again after silence, and when it is to be the next time. */
    tries: integer('tries').notNull().default(0),
    nextTry: when('next_try'),
    at: now('at'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.sourceId] })],
);
