import { boolean, index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { Destination, Watch } from '@pandecta/contract';
import type { OutsideQuestion } from '@pandecta/core/catalogues';
import type { SourceRecord } from '@pandecta/core/source';
import { now, when, workspaceId } from '../database/columns.ts';

/** How a catalogue answered a search. */
export interface Asked {
  id: string;
  name: string;
  state: 'asking' | 'done' | 'failed';
  /** How many match there, and how many of them are here. */
  total: number;
  fetched: number;
  says?: string;
  ms?: number;
}

/** The log of searches. */
export const searches = pgTable(
  'outside_searches',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    question: jsonb('question').$type<OutsideQuestion>().notNull(),
    /** Why it was made: for the methods section. */
    why: text('why').notNull().default(''),
    asked: jsonb('asked').$type<Asked[]>().notNull(),
    watchId: uuid('watch_id'),
    madeBy: uuid('made_by').notNull(),
    madeAt: now('made_at'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);

/** What catalogues answered, one row a record. */
export const hits = pgTable(
  'outside_hits',
  {
    workspaceId: workspaceId(),
    searchId: uuid('search_id').notNull(),
    ordinal: integer('ordinal').notNull(),
    catalogueId: uuid('catalogue_id').notNull(),
    accession: text('accession').notNull(),
    record: jsonb('record').$type<SourceRecord>().notNull(),
    subjects: jsonb('subjects').$type<string[]>().notNull(),
    /** The work it is of, among those of the search. */
    work: integer('work').notNull(),
    pdf: text('pdf'),
    /** Whether no search before had it. */
    isNew: boolean('is_new').notNull(),
    /** The gathering it went into. */
    importId: uuid('import_id'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.searchId, t.ordinal] }),
    index('outside_hits_accession').on(t.workspaceId, t.catalogueId, t.accession),
  ],
);

/** What is looked at again and again: searches, and addresses that list works. */
export const watches = pgTable(
  'watches',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    /** A search of catalogues, or an address: a feed, a page that lists works, a set of a repository. */
    kind: text('kind').$type<Watch['kind']>().notNull().default('search'),
    address: text('address'),
    /** What the last run left for the next one: from when on a repository is to be asked. */
    state: jsonb('state').$type<{ from?: string }>().notNull().default({}),
    /** Whether whoever made it is written to when something new came. */
    mail: boolean('mail').notNull().default(false),
    question: jsonb('question').$type<OutsideQuestion>().notNull(),
    catalogues: jsonb('catalogues').$type<string[]>().notNull(),
    every: text('every').$type<Watch['every']>().notNull(),
    destination: jsonb('destination').$type<Destination>(),
    nextAt: when('next_at').notNull(),
    ranAt: when('ran_at'),
    /** How many it brought the last time. */
    brought: integer('brought').notNull().default(0),
    says: text('says').notNull().default(''),
    /** How often it failed in a row; after too many it is paused. */
    failures: integer('failures').notNull().default(0),
    paused: boolean('paused').notNull().default(false),
    present: boolean('present').notNull().default(true),
    madeBy: uuid('made_by').notNull(),
    madeAt: now('made_at'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] }), index('watches_due').on(t.nextAt)],
);
