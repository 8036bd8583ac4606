/** Derived tables: rebuilt by `derive.ts` and the indexer, never edited. */
import { sql } from 'drizzle-orm';
import { boolean, index, integer, pgTable, primaryKey, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core';
import { tsvector, when, workspaceId } from '../database/columns.ts';
import type { DocumentName } from './documents.ts';

export const facets = pgTable(
  'facets',
  {
    id: integer('id').generatedAlwaysAsIdentity().primaryKey(),
    workspaceId: workspaceId(),
    type: text('type').notNull(),
    key: text('key').notNull(),
  },
  (t) => [uniqueIndex('facets_key').on(t.workspaceId, t.type, t.key)],
);

export const sourceFacets = pgTable(
  'source_facets',
  {
    workspaceId: workspaceId(),
    sourceId: uuid('source_id').notNull(),
    ids: integer('ids').array().notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.sourceId] })],
);

export const sourceText = pgTable(
  'source_text',
  {
    workspaceId: workspaceId(),
    sourceId: uuid('source_id').notNull(),
    number: integer('number').notNull(),
    /** All its words, those of its pages without places. */
    vector: tsvector('vector').notNull(),
    /** The words of each field under a prefix of its own. */
    fields: tsvector('fields').notNull(),
    /** Words of its pages that are too many to be found. */
    leftOut: integer('left_out').notNull().default(0),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.sourceId] }),
    index('source_text_vector').using('gin', t.vector),
    index('source_text_fields').using('gin', t.fields),
  ],
);

/** What is searched by itself besides the record of a source: the pages of its files, and what members write on it. */
export const documents = pgTable(
  'documents',
  {
    workspaceId: workspaceId(),
    /** Whether it is a page, the gloss of a mark, or a gloss on a source. */
    kind: text('kind').$type<DocumentName>().notNull(),
    /** Of a page, the id of its file. */
    id: uuid('id').notNull(),
    /** The number of the page in its file; 0 for what has no pages. */
    part: integer('part').notNull(),
    /** The source it is on; null for a page, whose file may belong to several. */
    sourceId: uuid('source_id'),
    /** The member who alone finds it; null where every member does. */
    audience: uuid('audience'),
    vector: tsvector('vector').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.kind, t.id, t.part] }),
    index('documents_vector').using('gin', t.vector),
    index('documents_source')
      .on(t.workspaceId, t.sourceId)
      .where(sql`source_id is not null`),
    index('documents_audience')
      .on(t.workspaceId, t.audience)
      .where(sql`audience is not null`),
  ],
);

export const sourceSort = pgTable(
  'source_sort',
  {
    workspaceId: workspaceId(),
    sourceId: uuid('source_id').notNull(),
    /** Its place in the columns of the workspace; never given twice. */
    number: integer('number').notNull(),
    presence: text('presence').notNull(),
    title: text('title').notNull(),
    author: text('author').notNull(),
    container: text('container').notNull(),
    kind: text('kind').notNull(),
    year: integer('year'),
    people: text('people')
      .array()
      .notNull()
      .default(sql`'{}'`),
    /** What its citation would miss, while it waits in the intake; afterwards nothing is noted of it. */
    lacks: text('lacks')
      .array()
      .notNull()
      .default(sql`'{}'`),
    /** The rules of proofing that find something in it, looked at by itself; null until it was. */
    findings: text('findings').array(),
    /** Facets its record tells, each as "type=key". */
    told: text('told')
      .array()
      .notNull()
      .default(sql`'{}'`),
    added: when('added').notNull(),
    changed: when('changed').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.sourceId] }),
    uniqueIndex('source_sort_number').on(t.workspaceId, t.number),
    // Each ends in the number, so that ranks are read from the index alone.
    index('source_sort_title').on(t.workspaceId, t.presence, t.title, t.number),
    index('source_sort_author').on(t.workspaceId, t.presence, t.author, t.number),
    index('source_sort_container').on(t.workspaceId, t.presence, t.container, t.number),
    index('source_sort_behind')
      .on(t.workspaceId)
      .where(sql`findings is null`),
  ],
);

export const derivations = pgTable(
  'derivations',
  {
    workspaceId: workspaceId(),
    revision: integer('revision').notNull(),
    numbers: integer('numbers').array().notNull(),
    /** Whether records changed, and so perhaps the order of the list. */
    sorts: boolean('sorts').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.revision] })],
);

/** Of which sources text was written, in the order in which it came to be seen. */
export const textNotes = pgTable(
  'text_notes',
  {
    workspaceId: workspaceId(),
    revision: integer('revision').notNull(),
    numbers: integer('numbers').array().notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.revision] })],
);

/** The words there are in a workspace, as the index has them: close spellings are looked for among them. */
export const indexWords = pgTable('index_words', { workspaceId: workspaceId(), word: text('word').notNull() }, (t) => [
  primaryKey({ columns: [t.workspaceId, t.word] }),
]);

/** Sources whose text is behind their records. */
export const indexQueue = pgTable(
  'index_queue',
  {
    workspaceId: workspaceId(),
    sourceId: uuid('source_id').notNull(),
    /** How often indexing it failed, and until when it stands aside for that. */
    failures: integer('failures').notNull().default(0),
    after: when('after'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.sourceId] })],
);
