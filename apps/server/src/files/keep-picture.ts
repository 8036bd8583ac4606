/** A picture kept beside a source; its words, where it has any, are with the PDF made of it. */
import type { Services } from '../services.ts';
import { ensureFile, finish } from './read-pdf.ts';

export async function keepPicture(
  { db }: Pick<Services, 'db'>,
  workspaceId: string,
  file: { name: string; sha256: string; bytes: number },
  mediaType: string,
): Promise<{ id: string; name: string }> {
  const id = await ensureFile(db, workspaceId, { ...file, mediaType });
  await finish(db, workspaceId, id, 'other', 0);
  return { id, name: file.name };
}
