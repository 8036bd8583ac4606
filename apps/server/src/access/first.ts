/** The first account of an empty installation: a steward and a workspace to begin in. */
import { hash } from '@node-rs/argon2';
import { v7 as uuidv7 } from 'uuid';
import { FIRST_SENSES } from '@pandecta/core/marks';
import { transact, type Db } from '../database/connect.ts';
import { members, senses, users, workspaces } from '../database/schema.ts';
import { keepFirstSearches } from '../saved/first.ts';
import { beyond, within } from '../database/within.ts';

export async function ensureFirstAccount(db: Db, password: string): Promise<void> {
  if ((await beyond(db).select({ id: users.id }).from(users).limit(1)).length) return;
  const userId = uuidv7();
  const workspaceId = uuidv7();
  await transact(db, async (tx) => {
    const passwordHash = await hash(password);
    await beyond(tx)
      .insert(users)
      .values({ id: userId, email: 'steward@pandecta.example', name: 'First Steward', passwordHash });
    await beyond(tx).insert(workspaces).values({ id: workspaceId, name: 'My workspace' });
    const here = within(tx, workspaceId);
    await here.insert(members, { userId, role: 'steward' });
    await keepFirstSearches(tx, workspaceId, 'Pandecta');
    await here.insert(senses, ...FIRST_SENSES.map((s) => ({ id: uuidv7(), ...s })));
  });
}
