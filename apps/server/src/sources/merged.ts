/** Where a source went that became part of others. */
import { sql, type SQL } from 'drizzle-orm';

/** A recursive query named `chain`: the ids the seed selects, and those each became part of, however often that was. */
export const chainFrom = (workspaceId: string, seed: SQL): SQL =>
  sql`with recursive chain (id) as (${seed} union
    select s.merged_into from sources s join chain c on s.workspace_id = ${workspaceId} and s.id = c.id where s.merged_into is not null)`;
