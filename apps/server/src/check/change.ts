/** Carries out merges, and what proofing is told once and for good. */
import { and, arrayContains, eq, inArray, isNull, sql } from 'drizzle-orm';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { idsOf } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { chainFrom } from '../database/merged.ts';
import { sources } from '../records/tables.ts';
import { sourceSort } from '../indexing/tables.ts';
import { findingFacets } from './facets.ts';
import { settled } from './tables.ts';

export const checkChanges: CarriersOf<'merge' | 'settle'> = {
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
      if (!one || source === into) return NOTHING;
      // Taken apart again where the other was removed for good, too: then this one alone is left.
      const stands = present
        ? one.presence === 'live' && target?.presence === 'live'
        : one.presence === 'merged' && one.mergedInto === into;
      if (!stands) return NOTHING;
      const after = present
        ? { presence: 'merged' as const, mergedInto: into }
        : { presence: 'live' as const, mergedInto: null };
      await here.update(sources, { ...after, changedAt: sql`now()` }, eq(sources.id, source));
      // Marks in files this source has and the one that holds them has not.
      const ofSource = sql`exists (select 1 from source_files f where f.workspace_id = ${workspaceId} and f.source_id = ${source} and f.file_id = m.file_id)
        and not exists (select 1 from source_files f where f.workspace_id = ${workspaceId} and f.source_id = m.source_id and f.file_id = m.file_id)`;
      const mine = sql`m.workspace_id = ${workspaceId}`;
      const stay = present
        ? idsOf(await rows(tx, { id: text() }, sql`select m.id from marks m where ${mine} and m.source_id = ${into} and ${ofSource} order by m.id`)) // prettier-ignore
        : (change.stay ?? []);
      const moved = present
        ? sql`update marks m set source_id = ${into} where ${mine} and m.source_id = ${source} returning m.id`
        : sql`${chainFrom(workspaceId, sql`select ${into}::uuid`)}
          update marks m set source_id = ${source} from chain where ${mine} and m.source_id = chain.id
            and (m.id = any(${array(change.marks, 'uuid')}) or (m.id <> all(${array(stay, 'uuid')}) and ${ofSource})) returning m.id`;
      const { stay: _, ...rest } = change;
      const done = {
        ...rest,
        marks: idsOf(await rows(tx, { id: text() }, moved)).sort(),
        ...(stay.length && { stay }),
      };
      return { change: done, altered: { records: target ? [source, into] : [source] } };
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
      if (source) return { change, altered: { some: [{ of: findingFacets, sources: [source] }] } };
      const found = await here.all(sourceSort, { id: sourceSort.sourceId }, arrayContains(sourceSort.findings, [name]));
      return { change, altered: { some: [{ of: findingFacets, sources: found.map((f) => f.id) }] } };
    },
  },
};
