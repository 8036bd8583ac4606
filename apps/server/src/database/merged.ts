/** Where a source went that became part of others, and what became part of it. */
import { sql, type SQL } from 'drizzle-orm';

/** A recursive query named `chain`: the ids the seed selects, and those each became part of, however often that was. */
export const chainFrom = (workspaceId: string | SQL, seed: SQL): SQL =>
  sql`with recursive chain (id) as (${seed} union
    select s.merged_into from sources s join chain c on s.workspace_id = ${workspaceId} and s.id = c.id where s.merged_into is not null)`;

/** A recursive query named `parts`: the ids the seed selects, and those that became part of each, however often that was. */
export const partsOf = (workspaceId: string | SQL, seed: SQL): SQL =>
  sql`with recursive parts (id) as (${seed} union
    select s.id from sources s join parts p on s.merged_into = p.id where s.workspace_id = ${workspaceId} and s.merged_into is not null)`;

/** The same for many at once, as `parts (whole, id)`: a recursion for each would be planned and begun anew. @param ids an array */
export const partsOfEach = (workspaceId: string | SQL, ids: SQL): SQL =>
  sql`with recursive parts (whole, id) as (select w.id, w.id from unnest(${ids}) w(id) union
    select p.whole, s.id from sources s join parts p on s.merged_into = p.id where s.workspace_id = ${workspaceId} and s.merged_into is not null)`;
