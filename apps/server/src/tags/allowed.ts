/** Collections that allow only the tags of one heading: what stands in such a one gets no other. */
import { sql } from 'drizzle-orm';
import type { Db } from '../database/connect.ts';
import { one, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../access/principal.ts';
import { seenBy } from '../places/store.ts';

/** @throws Refusal with the collection and what it allows */
export async function refuseOther(db: Db, actor: Actor, tag: string, sources: string[]): Promise<void> {
  const w = sql`${actor.workspaceId}::uuid`;
  const found = await one(
    db,
    { name: text(), allows: text() },
    sql`select c.name, c.allows from collections c where c.workspace_id = ${w} and c.allows is not null and ${seenBy(actor)}
      and c.allows is distinct from (select t.heading from tags t where t.workspace_id = ${w} and not t.subject and lower(t.name) = lower(${tag}))
      and exists (select 1 from collection_sources cs where cs.workspace_id = ${w} and cs.collection_id = c.id and cs.source_id = any(${array(sources, 'uuid')}))
      order by c.name limit 1`,
  );
  if (found)
    throw new Refusal('invalid', `${found.name} allows only tags of “${found.allows}”, and “${tag}” is none of them`);
}
