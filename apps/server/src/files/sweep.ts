/** Files that nobody holds go: of refused uploads, of servers that were killed, of sources that were removed for good. */
import { sql } from 'drizzle-orm';
import type { Db } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import type { Services } from '../services.ts';

/** An import that failed can be begun again so long; what it was made of stays as long. */
const DAYS_OF_IMPORTS = 30;

/** @param only looks at these alone */
export async function sweepFiles({ db, storage }: Pick<Services, 'db' | 'storage'>, only?: string[]): Promise<number> {
  if (!only) await db.execute(sql`delete from uploads where at < now() - interval '1 day'`);
  return storage.sweep((those) => heldOf(db, those), only);
}

/** Those of them that a source, an import or what was sent for one holds. */
async function heldOf(db: Db, those: string[]): Promise<ReadonlySet<string>> {
  const found = await rows(
    db,
    { sha256: text() },
    sql`select sha256 from files where sha256 = any(${array(those, 'text')})
      union select input->>'sha256' from uploads where input->>'sha256' = any(${array(those, 'text')})
      union select v #>> '{}' from imports i, jsonb_path_query(i.inputs, '$.**.sha256') v
        where i.made_at > now() - make_interval(days => ${DAYS_OF_IMPORTS}) and v #>> '{}' = any(${array(those, 'text')})`,
  );
  return new Set(found.map((f) => f.sha256));
}
