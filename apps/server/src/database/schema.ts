/**
 * The tables. The workspace leads every key; ids are UUIDv7. What a person edits stands in `sources` and its
 * companions; what searching, narrowing and sorting need stands in narrow tables derived from them (see
 * `../indexing`), so that a change of tag rewrites no text index and a text index never slows a list.
 */
import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  customType,
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
import type { Change } from '@pandecta/core/source';

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
const tsvector = customType<{ data: string }>({ dataType: () => 'tsvector' });
const when = (name: string) => timestamp(name, { withTimezone: true, mode: 'string' });
const now = (name: string) =>
  when(name)
    .notNull()
    .default(sql`now()`);
const workspaceId = () => uuid('workspace_id').notNull();

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

export const workspaces = pgTable('workspaces', {
  id: uuid('id').primaryKey(),
  /** A short number that leads every lexeme of the workspace in the text indexes, and names the sequence its sources are numbered from. */
  number: integer('number').notNull().generatedAlwaysAsIdentity(),
  name: text('name').notNull(),
  /** Counts the writes that altered derived rows; see `derivations`. */
  revision: integer('revision').notNull().default(0),
  /** Counts the changes to where collections stand. */
  tree: integer('tree').notNull().default(0),
});

export const members = pgTable(
  'members',
  {
    workspaceId: workspaceId().references(() => workspaces.id),
    userId: uuid('user_id')
      .notNull()
      .references(() => users.id),
    role: text('role').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.userId] }), index('members_user').on(t.userId)],
);

export const sources = pgTable(
  'sources',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    record: jsonb('record').notNull(),
    provenance: jsonb('provenance').notNull().default({}),
    presence: text('presence').notNull().default('live'),
    reading: text('reading'),
    version: integer('version').notNull().default(1),
    addedAt: now('added_at'),
    changedAt: now('changed_at'),
    addedBy: uuid('added_by').notNull(),
    importId: uuid('import_id'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);

/** Keys by which a source coming in is known for one already here. */
export const sourceKeys = pgTable(
  'source_keys',
  {
    workspaceId: workspaceId(),
    key: text('key').notNull(),
    sourceId: uuid('source_id').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.key, t.sourceId] }),
    index('source_keys_source').on(t.workspaceId, t.sourceId),
  ],
);

export const tags = pgTable(
  'tags',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    subject: boolean('subject').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    uniqueIndex('tags_name').on(t.workspaceId, t.subject, sql`lower(${t.name})`),
  ],
);

export const sourceTags = pgTable(
  'source_tags',
  {
    workspaceId: workspaceId(),
    sourceId: uuid('source_id').notNull(),
    tagId: uuid('tag_id').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.sourceId, t.tagId] }),
    index('source_tags_tag').on(t.workspaceId, t.tagId),
  ],
);

export const collections = pgTable(
  'collections',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
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
    present: boolean('present').notNull().default(true),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);

/** Every collection with itself and all it stands under: derived from the placements. */
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

export const files = pgTable(
  'files',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    sha256: text('sha256').notNull(),
    name: text('name').notNull(),
    bytes: bigint('bytes', { mode: 'number' }).notNull(),
    mediaType: text('media_type').notNull(),
    state: text('state').notNull(),
    pages: integer('pages').notNull().default(0),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] }), uniqueIndex('files_sha').on(t.workspaceId, t.sha256)],
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
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.fileId, t.number] })],
);

export const senses = pgTable(
  'senses',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    key: integer('key').notNull(),
    colour: text('colour').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);

export const marks = pgTable(
  'marks',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    sourceId: uuid('source_id').notNull(),
    fileId: uuid('file_id').notNull(),
    page: integer('page').notNull(),
    senseId: uuid('sense_id').notNull(),
    quote: jsonb('quote').notNull(),
    rects: jsonb('rects').notNull(),
    gloss: text('gloss').notNull().default(''),
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

export const changes = pgTable(
  'changes',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    actorId: uuid('actor_id').notNull(),
    at: now('at'),
    change: jsonb('change').$type<Change>().notNull(),
    says: text('says').notNull(),
    undoes: uuid('undoes'),
    undoneBy: uuid('undone_by'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] }), index('changes_actor').on(t.workspaceId, t.actorId, t.id)],
);

export const changeSources = pgTable(
  'change_sources',
  {
    workspaceId: workspaceId(),
    sourceId: uuid('source_id').notNull(),
    changeId: uuid('change_id').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.sourceId, t.changeId] })],
);

export const jobs = pgTable(
  'jobs',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    kind: text('kind').notNull(),
    title: text('title').notNull(),
    state: text('state').notNull().default('waiting'),
    done: integer('done').notNull().default(0),
    total: integer('total').notNull().default(0),
    says: text('says').notNull().default(''),
    cancel: boolean('cancel').notNull().default(false),
    /** What is to be done, until it is done; and what came of it. */
    input: jsonb('input'),
    result: jsonb('result'),
    madeBy: uuid('made_by').notNull(),
    madeAt: now('made_at'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);

export const imports = pgTable(
  'imports',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    jobId: uuid('job_id').notNull(),
    title: text('title').notNull(),
    collectionId: uuid('collection_id'),
    /** The files as they came: [{ name, sha256, bytes }]. */
    inputs: jsonb('inputs').notNull(),
    report: jsonb('report'),
    changeId: uuid('change_id'),
    madeBy: uuid('made_by').notNull(),
    madeAt: now('made_at'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] }), index('imports_job').on(t.workspaceId, t.jobId)],
);

export const importMessages = pgTable(
  'import_messages',
  {
    workspaceId: workspaceId(),
    importId: uuid('import_id').notNull(),
    ordinal: integer('ordinal').notNull(),
    message: jsonb('message').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.importId, t.ordinal] })],
);

// Derived tables: rebuilt by `../indexing`, never edited.

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
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.sourceId] }),
    index('source_text_vector').using('gin', t.vector),
    index('source_text_fields').using('gin', t.fields),
  ],
);

export const pageText = pgTable(
  'page_text',
  {
    workspaceId: workspaceId(),
    fileId: uuid('file_id').notNull(),
    number: integer('number').notNull(),
    vector: tsvector('vector').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.fileId, t.number] }),
    index('page_text_vector').using('gin', t.vector),
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
  ],
);

/** Which sources each revision of a workspace altered: what columns held in memory are kept fresh by. */
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

/** Sources whose derived rows are behind their records. */
export const indexQueue = pgTable(
  'index_queue',
  {
    workspaceId: workspaceId(),
    sourceId: uuid('source_id').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.sourceId] })],
);
