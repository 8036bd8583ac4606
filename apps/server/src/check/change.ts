/** Carries out merges, and what is said of how two sources stand to each other. */
import { and, eq, inArray, sql } from 'drizzle-orm';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { idsOf } from '../database/connect.ts';
import { oneOf } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { marks } from '../marks/tables.ts';
import { sources } from '../sources/tables.ts';
import { relations } from './tables.ts';

export const checkChanges: CarriersOf<'merge' | 'relate'> = {
  merge: {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      const here = within(tx, workspaceId);
      const { source, into, present } = change;
      const both = await here.all(
        sources,
        { id: sources.id, presence: sources.presence, mergedInto: sources.mergedInto },
        inArray(sources.id, [source, into]),
        { by: [sources.id], lock: 'update' },
      );
      const one = both.find((s) => s.id === source);
      const target = both.find((s) => s.id === into);
      if (!one || !target || source === into) return NOTHING;
      const stands = present
        ? one.presence === 'live' && target.presence === 'live'
        : one.presence === 'merged' && one.mergedInto === into;
      if (!stands) return NOTHING;
      const after = present
        ? { presence: 'merged' as const, mergedInto: into }
        : { presence: 'live' as const, mergedInto: null };
      await here.update(sources, { ...after, changedAt: sql`now()` }, eq(sources.id, source));
      const [from, to] = present ? [source, into] : [into, source];
      const theirs = present ? eq(marks.sourceId, from) : and(eq(marks.sourceId, from), oneOf(marks.id, change.marks));
      const moved = await here.update(marks, { sourceId: to }, theirs).returning({ id: marks.id });
      return { change: { ...change, marks: idsOf(moved).sort() }, altered: { records: [source, into] } };
    },
  },
  relate: {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      const here = within(tx, workspaceId);
      const { from, to, as, present } = change;
      if (from === to) return NOTHING;
      const known = await here.all(sources, { id: sources.id }, inArray(sources.id, [from, to]));
      if (known.length < 2) return NOTHING;
      const done = present
        ? await here
            .insert(relations, { fromId: from, toId: to, as })
            .onConflictDoNothing()
            .returning({ id: relations.fromId })
        : await here
            .delete(relations, and(eq(relations.fromId, from), eq(relations.toId, to), eq(relations.as, as)))
            .returning({ id: relations.fromId });
      return done.length ? { change, altered: {} } : NOTHING;
    },
  },
};
