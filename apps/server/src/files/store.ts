import { and, eq, sql, type InferSelectModel } from 'drizzle-orm';
import type { Actor } from '../access/principal.ts';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { inBounds } from '../subjects/registry.ts';
import { files, sourceFiles } from './tables.ts';

type FileRow = Omit<
  InferSelectModel<typeof files>,
  'workspaceId' | 'releasedAt' | 'numbering' | 'annotations' | 'takenFrom'
>;

/**
 * The file, as one of a source.
 * @throws Refusal as `findFile`, and where the source does not have it
 */
export async function findFileOf(db: Db, viewer: Actor, source: string, id: string): Promise<FileRow> {
  const file = await findFile(db, viewer, id);
  const { sourceId, fileId } = sourceFiles;
  if (!(await within(db, viewer.workspaceId).has(sourceFiles, and(eq(sourceId, source), eq(fileId, id)))))
    throw new Refusal('no_such_file');
  return file;
}

/** @throws Refusal where there is none, or the viewer sees no source it belongs to */
export async function findFile(db: Db, viewer: Actor, id: string): Promise<FileRow> {
  const { sha256, name, bytes, mediaType, state, pages, address, numberedByHand } = files;
  const fields = { id: files.id, sha256, name, bytes, mediaType, state, pages, address, numberedByHand };
  const seen = viewer.bounds
    ? sql`exists (select 1 from source_files sf where sf.workspace_id = ${viewer.workspaceId} and sf.file_id = ${files.id} and ${inBounds(viewer, sql`sf.source_id`)})`
    : undefined;
  const found = await within(db, viewer.workspaceId).first(files, fields, and(eq(files.id, id), seen));
  if (!found) throw new Refusal('no_such_file');
  return found;
}
