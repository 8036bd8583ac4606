/** The first account of an empty installation: a steward and a workspace to begin in. */
import { hash } from '@node-rs/argon2';
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { FIRST_SENSES } from '@pandecta/core/marks';
import { one, transact, type Db } from '../database/connect.ts';

export async function ensureFirstAccount(db: Db, password: string): Promise<void> {
  if (await one(db, sql`select 1 from users limit 1`)) return;
  const userId = uuidv7();
  const workspaceId = uuidv7();
  await transact(db, async (tx) => {
    await tx.execute(
      sql`insert into users (id, email, name, password_hash) values (${userId}, 'steward@pandecta.example', 'First Steward', ${await hash(password)})`,
    );
    await tx.execute(sql`insert into workspaces (id, name) values (${workspaceId}, 'My workspace')`);
    await tx.execute(
      sql`insert into members (workspace_id, user_id, role) values (${workspaceId}, ${userId}, 'steward')`,
    );
    for (const s of FIRST_SENSES)
      await tx.execute(
        sql`insert into senses (workspace_id, id, name, key, colour) values (${workspaceId}, ${uuidv7()}, ${s.name}, ${s.key}, ${s.colour})`,
      );
  });
}
