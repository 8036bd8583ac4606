import { eq, type InferSelectModel } from 'drizzle-orm';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { files } from './tables.ts';

type FileRow = Omit<InferSelectModel<typeof files>, 'workspaceId' | 'releasedAt'>;

export async function findFile(db: Db, workspaceId: string, id: string): Promise<FileRow> {
  const { sha256, name, bytes, mediaType, state, pages, address } = files;
  const fields = { id: files.id, sha256, name, bytes, mediaType, state, pages, address };
  const found = await within(db, workspaceId).first(files, fields, eq(files.id, id));
  if (!found) throw new Refusal('no_such_file');
  return found;
}
