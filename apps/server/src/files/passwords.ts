/** Passwords of locked files, each kept for the member who opened it: sealed, so that neither the database nor its backup shows them. */
import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import type { FilePassword } from '@pandecta/contract';
import type { Actor } from '../access/principal.ts';
import { within } from '../database/within.ts';
import type { Services } from '../services.ts';
import { findFile } from './store.ts';
import { filePasswords } from './tables.ts';

const CIPHER = 'aes-256-gcm';

function seal(key: Buffer, text: string): string {
  const nonce = randomBytes(12);
  const cipher = createCipheriv(CIPHER, key, nonce);
  const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
  return Buffer.concat([nonce, cipher.getAuthTag(), sealed]).toString('base64');
}

/** @returns undefined where it was sealed with another key */
function unseal(key: Buffer, sealed: string): string | undefined {
  const all = Buffer.from(sealed, 'base64');
  try {
    const decipher = createDecipheriv(CIPHER, key, all.subarray(0, 12)).setAuthTag(all.subarray(12, 28));
    return Buffer.concat([decipher.update(all.subarray(28)), decipher.final()]).toString('utf8');
  } catch {
    return undefined;
  }
}

export async function passwordOf(services: Services, viewer: Actor, file: string): Promise<FilePassword> {
  await findFile(services.db, viewer, file);
  const mine = and(eq(filePasswords.userId, viewer.userId), eq(filePasswords.fileId, file));
  const found = await within(services.db, viewer.workspaceId).first(filePasswords, { sealed: filePasswords.sealed }, mine); // prettier-ignore
  return { password: (found && unseal(await services.storage.secret(), found.sealed)) ?? null };
}

export async function keepPassword(
  services: Services,
  viewer: Actor,
  file: string,
  password: string | null,
): Promise<FilePassword> {
  await findFile(services.db, viewer, file);
  const here = within(services.db, viewer.workspaceId);
  const { workspaceId, userId, fileId } = filePasswords;
  if (password === null) await here.delete(filePasswords, and(eq(userId, viewer.userId), eq(fileId, file)));
  else {
    const sealed = seal(await services.storage.secret(), password);
    await here
      .insert(filePasswords, { userId: viewer.userId, fileId: file, sealed })
      .onConflictDoUpdate({ target: [workspaceId, userId, fileId], set: { sealed } });
  }
  return { password };
}
