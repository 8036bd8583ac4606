/** Carries out what is each member's own: reading states and stars. */
import { and, eq, sql } from 'drizzle-orm';
import { standing } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import type { Db } from '../database/connect.ts';
import { oneOf, table } from '../database/sql.ts';
import { tie } from '../database/tie.ts';
import { within } from '../database/within.ts';
import { ownFacets } from './facets.ts';
import { readingOf } from './store.ts';
import { sourceReading } from './tables.ts';

export const ownChanges: CarriersOf<'reading' | 'star'> = {
  reading: {
    may: 'own',
    async carryOut(tx, workspaceId, change) {
      const before = await readingOf(
        tx,
        { workspaceId, userId: change.member },
        Object.keys(change.states),
        'for update',
      );
      const states = standing(change.states, (id) => before.get(id));
      if (!states) return NOTHING;
      await setReading(tx, workspaceId, change.member, states);
      return { change: { ...change, states }, altered: { some: [{ of: ownFacets, sources: Object.keys(states) }] } };
    },
  },
  star: {
    may: 'own',
    async carryOut(tx, workspaceId, change) {
      const sources = await tie(tx, workspaceId, STARS, change.member, change);
      return sources.length
        ? { change: { ...change, sources }, altered: { some: [{ of: ownFacets, sources }] } }
        : NOTHING;
    },
  },
};

const STARS = { table: sql`source_stars`, column: sql`user_id` };

async function setReading(
  tx: Db,
  workspaceId: string,
  member: string,
  states: Record<string, { after: string | null }>,
): Promise<void> {
  const all = Object.entries(states);
  const cleared = all.filter(([, s]) => s.after === null).map(([id]) => id);
  const set = all.filter(([, s]) => s.after !== null);
  const { userId, sourceId } = sourceReading;
  const where = and(eq(userId, member), oneOf(sourceId, cleared));
  await within(tx, workspaceId).delete(sourceReading, where);
  await tx.execute(sql`insert into source_reading (workspace_id, source_id, user_id, state)
    select ${workspaceId}::uuid, u.id, ${member}::uuid, u.state
    from ${table('u', { id: ['uuid', set.map(([id]) => id)], state: ['text', set.map(([, s]) => s.after)] })}
    on conflict (workspace_id, source_id, user_id) do update set state = excluded.state`);
}
