/** Keys for gathering: made by a member for themselves, named, revoked; each opens the ways in of one workspace. */
import { createHash, randomBytes } from 'node:crypto';
import { and, eq, sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { GatherKeys, MadeGatherKey } from '@pandecta/contract';
import type { Db } from '../database/connect.ts';
import { beyond, within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from './principal.ts';
import { gatherKeys, users } from './tables.ts';

const hash = (key: string): Buffer => createHash('sha256').update(key).digest();

export async function listKeys(db: Db, { workspaceId, userId }: Actor): Promise<GatherKeys> {
  const { id, name, madeAt, usedAt } = gatherKeys;
  const mine = eq(gatherKeys.userId, userId);
  return { keys: await within(db, workspaceId).all(gatherKeys, { id, name, madeAt, usedAt }, mine, { by: [id] }) };
}

export async function makeKey(db: Db, actor: Actor, name: string): Promise<MadeGatherKey> {
  const key = randomBytes(24).toString('base64url');
  const row = { id: uuidv7(), userId: actor.userId, name: name.trim(), keyHash: hash(key) };
  await within(db, actor.workspaceId).insert(gatherKeys, row);
  return { ...(await listKeys(db, actor)), key };
}

export async function revokeKey(db: Db, actor: Actor, id: string): Promise<GatherKeys> {
  const mine = and(eq(gatherKeys.id, id), eq(gatherKeys.userId, actor.userId));
  const gone = await within(db, actor.workspaceId).delete(gatherKeys, mine).returning({ id: gatherKeys.id });
  if (!gone.length) throw new Refusal('no_such_key');
  return listKeys(db, actor);
}

/** Whose key it is; told when it was used. */
export async function findKey(
  db: Db,
  key: string,
  workspaceId: string,
): Promise<{ id: string; name: string; email: string } | undefined> {
  if (!/^[0-9a-f-]{36}$/i.test(workspaceId)) return undefined;
  const [used] = await within(db, workspaceId)
    .update(gatherKeys, { usedAt: sql`now()` }, eq(gatherKeys.keyHash, hash(key)))
    .returning({ userId: gatherKeys.userId });
  if (!used) return undefined;
  const { id, name, email } = users;
  const [user] = await beyond(db).select({ id, name, email }).from(users).where(eq(users.id, used.userId));
  return user;
}
