/** The first account of an empty installation: a steward and a workspace to begin in, made once by the link its start printed. */
import { createHash, timingSafeEqual } from 'node:crypto';
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { FirstAccount, FirstLink } from '@pandecta/contract';
import { transact, type Db } from '../database/connect.ts';
import { members, users, workspaces } from '../access/tables.ts';
import { writeFirstSenses } from '../marks/senses.ts';
import { keepFirstSearches } from '../saved/first.ts';
import { beyond, within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { hashPassword } from '../access/passwords.ts';
import { hasAccounts, type Person } from '../access/store.ts';

/** Any number: of two who hold the link one makes the account, and the other is told so. */
const MAKING_FIRST = 4_700_003;

/**
 * @param token what opens it; without one nobody may
 * @throws Refusal where the link is not that one, or someone is there already
 */
export async function refuseSpent(db: Db, token: string | undefined, given: FirstLink): Promise<void> {
  if (!token || !same(token, given.token) || (await hasAccounts(db))) throw new Refusal('link_spent');
}

/**
 * @returns who was made
 * @throws Refusal as `refuseSpent`
 */
export async function makeFirstAccount(db: Db, token: string | undefined, given: FirstAccount): Promise<Person> {
  await refuseSpent(db, token, given);
  const user = { id: uuidv7(), email: given.email.trim().toLowerCase(), name: given.name.trim() };
  const workspaceId = uuidv7();
  const passwordHash = await hashPassword(given.password);
  await transact(db, async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(${MAKING_FIRST})`);
    await refuseSpent(tx, token, given);
    await beyond(tx)
      .insert(users)
      .values({ ...user, passwordHash });
    await beyond(tx).insert(workspaces).values({ id: workspaceId, name: given.workspace.trim() });
    const here = within(tx, workspaceId);
    await here.insert(members, { userId: user.id, role: 'steward' });
    await keepFirstSearches(tx, workspaceId, user.name);
    await writeFirstSenses(tx, workspaceId);
  });
  return user;
}

const digest = (text: string): Buffer => createHash('sha256').update(text).digest();
const same = (a: string, b: string): boolean => timingSafeEqual(digest(a), digest(b));
