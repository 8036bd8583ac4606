import { sql } from 'drizzle-orm';
import type { Db } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';

/** The name of who did something, of a left join with users called `u`: what no person did, the application did itself. */
export const nameOfActor = sql`coalesce(u.name, 'Pandecta')`;

/** The names of those with these ids. */
export async function namesOf(db: Db, ids: string[]): Promise<Map<string, string>> {
  const found = await rows(
    db,
    { id: text(), name: text() },
    sql`select p.id::text as id, ${nameOfActor} as name from unnest(${array(ids, 'uuid')}) p(id) left join users u on u.id = p.id`,
  );
  return new Map(found.map((p) => [p.id, p.name]));
}
