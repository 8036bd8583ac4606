import { createHash, randomBytes } from 'node:crypto';
import { and, eq, gt, ne, sql, type SQL } from 'drizzle-orm';
import type { Role, WorkspaceSummary } from '@pandecta/contract';
import { actionsOf, WITHIN_BOUNDS } from './permissions.ts';
import { members, sessions, users, workspaces } from './tables.ts';
import { transact, type Db } from '../database/connect.ts';
import { beyond } from '../database/within.ts';
import { notifyEnded } from '../news/notify.ts';
import type { Bounds, Caller, Workspace } from './principal.ts';

export const SESSION_DAYS = 30;

const hash = (token: string): Buffer => createHash('sha256').update(token).digest();

export async function findSession(db: Db, token: string): Promise<Caller['user'] | undefined> {
  const [found] = await beyond(db)
    .select({ id: users.id, name: users.name, email: users.email, csrf: sessions.csrf })
    .from(sessions)
    .innerJoin(users, eq(users.id, sessions.userId))
    .where(and(eq(sessions.tokenHash, hash(token)), gt(sessions.expiresAt, sql`now()`)));
  return found;
}

/** By which a session is told of: its token is nowhere but with whoever has it. */
export const hashOf = (token: string): string => hash(token).toString('hex');

/** Makes a session; only the hash of its token is stored. */
export async function makeSession(db: Db, userId: string): Promise<{ token: string; csrf: string }> {
  const token = randomBytes(32).toString('base64url');
  const csrf = randomBytes(18).toString('base64url');
  await beyond(db)
    .insert(sessions)
    .values({
      tokenHash: hash(token),
      userId,
      csrf,
      expiresAt: sql`now() + make_interval(days => ${SESSION_DAYS})` as never,
    });
  return { token, csrf };
}

/** The session, and what listens under it, ends. */
export async function endSession(db: Db, token: string): Promise<void> {
  await endSessions(db, eq(sessions.tokenHash, hash(token)));
}

async function endSessions(db: Db, which: SQL | undefined): Promise<void> {
  const ended = await beyond(db).delete(sessions).where(which).returning({ hash: sessions.tokenHash });
  await notifyEnded(
    db,
    ended.map((e) => Buffer.from(e.hash).toString('hex')),
  );
}

/** Who has an account. */
export interface Person {
  id: string;
  name: string;
  email: string;
}

export async function findUser(db: Db, email: string): Promise<(Person & { passwordHash: string }) | undefined> {
  const [user] = await beyond(db).select().from(users).where(eq(users.email, email.trim().toLowerCase()));
  return user;
}

export async function workspacesOf(db: Db, userId: string): Promise<WorkspaceSummary[]> {
  const found = await beyond(db)
    .select({ id: workspaces.id, name: workspaces.name, role: members.role, bounds: members.bounds })
    .from(members)
    .innerJoin(workspaces, eq(workspaces.id, members.workspaceId))
    .where(eq(members.userId, userId))
    .orderBy(workspaces.number);
  return found.map(({ bounds, ...f }) => ({
    ...f,
    role: f.role as Role,
    may: actionsOf(f.role as Role).filter((action) => !bounds || WITHIN_BOUNDS.includes(action)),
  }));
}

export async function findMembership(db: Db, userId: string, workspaceId: string): Promise<Workspace | undefined> {
  const [found] = await beyond(db)
    .select({
      id: workspaces.id,
      number: workspaces.number,
      name: workspaces.name,
      role: members.role,
      bounds: members.bounds,
    })
    .from(members)
    .innerJoin(workspaces, eq(workspaces.id, members.workspaceId))
    .where(and(eq(members.userId, userId), eq(members.workspaceId, workspaceId)));
  return found && { ...found, role: found.role as Role, bounds: boundsIn(found.bounds) };
}

const boundsIn = (collection: string | null): Bounds | undefined => (collection ? { collection } : undefined);

/** Gives a person another password; all their sessions but the one it was done in end. */
export async function setPassword(db: Db, userId: string, passwordHash: string, token: string): Promise<void> {
  await transact(db, async (tx) => {
    await beyond(tx).update(users).set({ passwordHash }).where(eq(users.id, userId));
    await endSessions(tx, and(eq(sessions.userId, userId), ne(sessions.tokenHash, hash(token))));
  });
}

export async function hasAccounts(db: Db): Promise<boolean> {
  return (await beyond(db).select({ id: users.id }).from(users).limit(1)).length > 0;
}

export async function forgetOldSessions(db: Db): Promise<void> {
  await beyond(db)
    .delete(sessions)
    .where(sql`${sessions.expiresAt} < now()`);
}
