/**
 * What a workspace holds that changes speak of: one declaration a kind, by the capability it belongs to. A kind of
 * `SUBJECT_KINDS` (core/changes) without its declaration does not compile.
 */
import { sql, type SQL } from 'drizzle-orm';
import type { SubjectKind } from '@pandecta/core/changes';
import type { Actor, Viewer } from '../access/principal.ts';
import type { ErrorCode } from '../errors.ts';
import { Registry } from '../registry.ts';

export interface SubjectDefinition {
  /** What one is called in a sentence. */
  called: string;
  /** Its rows: a table with `workspace_id` and `id`. */
  table: string;
  /** Whether the row `of` is there and may be seen. Who may see what is said here alone. */
  visibleTo(viewer: Viewer, of: SQL): SQL;
  /** How one that is not there, or may not be seen, is answered. */
  missing: ErrorCode;
  /**
   * What others do to one keeps what made it from being undone (`guards`), or goes and comes with it and is told (`goes along`).
   */
  othersWork: 'guards' | 'goes along';
}

/** One for each kind. */
export type SubjectDefinitions = { [K in SubjectKind]: SubjectDefinition };
/** The kinds of subject that one capability declares. */
export type SubjectsOf<K extends SubjectKind> = Pick<SubjectDefinitions, K>;

/** Whether a source, by its id, is filed in a collection or below it: the capability of collections says it. */
export const IN_COLLECTION = new Registry<(viewer: Actor, collection: string, source: SQL) => SQL>('bounds');

/** Whether the source whose id is `source` lies in what the viewer sees of the workspace. */
export const inBounds = (viewer: Actor, source: SQL): SQL =>
  viewer.bounds ? IN_COLLECTION.all(viewer, viewer.bounds.collection, source) : sql`true`;

/** Whether some source within the viewer's bounds has `of` (a tag, a label). @param ties the table of sources and their tags or labels; `column` is its id there */
export const borneInBounds = (viewer: Actor, { ties, column }: { ties: string; column: string }, of: SQL): SQL =>
  sql`exists (select 1 from ${sql.raw(ties)} b where b.workspace_id = ${of}.workspace_id and b.${sql.raw(column)} = ${of}.id and ${inBounds(viewer, sql`b.source_id`)})`;

/** Whether the row `of`, which is on a source, is there and its source in the bounds. */
export const presentInBounds = (viewer: Actor, of: SQL): SQL =>
  sql`${of}.present and ${inBounds(viewer, sql`${of}.source_id`)}`;

export const SUBJECTS = new Registry<SubjectDefinitions>('subjects');

/** Whether the row `of`, of a kind, is there and may be seen. */
export const visibleTo = (viewer: Viewer, kind: SubjectKind, of: SQL): SQL => SUBJECTS.all[kind].visibleTo(viewer, of);

/** Of what is everyone's or one member's own: whether it may be seen. @param owner null where it is everyone's */
export const everyonesOrOwn = ({ userId }: Pick<Actor, 'userId'>, owner: SQL): SQL =>
  sql`(${owner} is null or ${owner} = ${userId}::uuid)`;
