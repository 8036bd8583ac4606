/** Carries out what the workspace says of sources: labels, ratings, what is to be checked again. */
import { sql, type SQL } from 'drizzle-orm';
import { standing, type BeforeAfter } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import type { Db } from '../database/connect.ts';
import { array, table } from '../database/sql.ts';
import { tie } from '../database/tie.ts';
import type { Altered } from '../indexing/derive.ts';
import { stateFacets } from './facets.ts';
import { ratingsOf, reasonsOf } from './store.ts';

const LABELLED = { table: sql`source_labels`, column: sql`label_id` };

export const stateChanges: CarriersOf<'labelling' | 'rate' | 'recheck'> = {
  labelling: {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      const sources = await tie(tx, workspaceId, LABELLED, change.label, change);
      return sources.length
        ? { change: { ...change, sources }, altered: { some: [{ of: stateFacets, sources }] } }
        : NOTHING;
    },
  },
  rate: {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      const now = await ratingsOf(tx, workspaceId, Object.keys(change.ratings), 'for update');
      const ratings = standing(change.ratings, (id) => now.get(id));
      return ratings
        ? { change: { ...change, ratings }, altered: await said(tx, workspaceId, RATED, ratings) }
        : NOTHING;
    },
  },
  recheck: {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      const now = await reasonsOf(tx, workspaceId, Object.keys(change.reasons), 'for update');
      const reasons = standing(change.reasons, (id) => now.get(id));
      return reasons
        ? { change: { ...change, reasons }, altered: await said(tx, workspaceId, RECHECKED, reasons) }
        : NOTHING;
    },
  },
};

/** Where one value a source is kept, with a row for each that has one. */
interface Kept {
  table: SQL;
  column: SQL;
  type: 'int' | 'text';
}
const RATED: Kept = { table: sql`source_ratings`, column: sql`rating`, type: 'int' };
const RECHECKED: Kept = { table: sql`source_rechecks`, column: sql`reason`, type: 'text' };

/** Writes the value each source has afterwards; of what is null no row is left. */
async function said(
  tx: Db,
  workspaceId: string,
  { table: kept, column, type }: Kept,
  values: Record<string, BeforeAfter<number> | BeforeAfter<string>>,
): Promise<Altered> {
  const ids = Object.keys(values);
  const set = ids.filter((id) => values[id]!.after !== null);
  await tx.execute(
    sql`delete from ${kept} where workspace_id = ${workspaceId} and source_id = any(${array(ids, 'uuid')})`,
  );
  await tx.execute(sql`insert into ${kept} (workspace_id, source_id, ${column})
    select ${workspaceId}::uuid, u.id, u.value
    from ${table('u', { id: ['uuid', set], value: [type, set.map((id) => values[id]!.after)] })}`);
  return { some: [{ of: stateFacets, sources: ids }] };
}
