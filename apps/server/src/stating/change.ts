/** Carries out what the workspace says of sources: labels and ratings. */
import { sql } from 'drizzle-orm';
import { standing } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { array, table } from '../database/sql.ts';
import { tie } from '../database/tie.ts';
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
      if (!ratings) return NOTHING;
      const ids = Object.keys(ratings);
      const set = ids.filter((id) => ratings[id]!.after !== null);
      await tx.execute(
        sql`delete from source_ratings where workspace_id = ${workspaceId} and source_id = any(${array(ids, 'uuid')})`,
      );
      await tx.execute(sql`insert into source_ratings (workspace_id, source_id, rating)
        select ${workspaceId}::uuid, u.id, u.rating
        from ${table('u', { id: ['uuid', set], rating: ['int', set.map((id) => ratings[id]!.after)] })}`);
      return { change: { ...change, ratings }, altered: { some: [{ of: stateFacets, sources: ids }] } };
    },
  },
  recheck: {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      const now = await reasonsOf(tx, workspaceId, Object.keys(change.reasons), 'for update');
      const reasons = standing(change.reasons, (id) => now.get(id));
      if (!reasons) return NOTHING;
      const ids = Object.keys(reasons);
      const set = ids.filter((id) => reasons[id]!.after !== null);
      await tx.execute(
        sql`delete from source_rechecks where workspace_id = ${workspaceId} and source_id = any(${array(ids, 'uuid')})`,
      );
      await tx.execute(sql`insert into source_rechecks (workspace_id, source_id, reason)
        select ${workspaceId}::uuid, u.id, u.reason
        from ${table('u', { id: ['uuid', set], reason: ['text', set.map((id) => reasons[id]!.after)] })}`);
      return { change: { ...change, reasons }, altered: { some: [{ of: stateFacets, sources: ids }] } };
    },
  },
};
