/** Carries out merges, and what is said of how two sources stand to each other. */
import { and, arrayContains, eq, inArray, isNull, sql } from 'drizzle-orm';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { idsOf } from '../database/connect.ts';
import { oneOf } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { marks } from '../marks/tables.ts';
import { sources } from '../sources/tables.ts';
import { sourceSort } from '../indexing/tables.ts';
import { relations, settled } from './tables.ts';

export const checkChanges: CarriersOf<'merge' | 'relate' | 'settle'> = {
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
  settle: {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      const here = within(tx, workspaceId);
      const { what, name, source, present } = change;
      if (source && !(await here.has(sources, eq(sources.id, source)))) return NOTHING;
      const one = and(
        eq(settled.what, what),
        eq(settled.name, name),
        source ? eq(settled.sourceId, source) : isNull(settled.sourceId),
      );
      const done = present
        ? await here
            .insert(settled, { what, name, sourceId: source })
            .onConflictDoNothing()
            .returning({ name: settled.name })
        : await here.delete(settled, one).returning({ name: settled.name });
      if (!done.length) return NOTHING;
      if (what !== 'aside') return { change, altered: {} };
      if (source) return { change, altered: { facets: [source] } };
      const found = await here.all(sourceSort, { id: sourceSort.sourceId }, arrayContains(sourceSort.findings, [name]));
      return { change, altered: { facets: found.map((f) => f.id) } };
    },
  },
};
