/** Carries out what happens to sources themselves: coming and going, and edits of their records. */
import { and, eq, sql } from 'drizzle-orm';
import { editable, editRecord } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { idsOf } from '../database/connect.ts';
import { oneOf } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { sources } from './tables.ts';

export const sourceChanges: CarriersOf<'presence' | 'edit'> = {
  presence: {
    may: 'edit',
    async carryOut(tx, workspaceId, { made, ...change }) {
      // An import has just written them as they are to be: the change tells of them and has nothing left to do.
      if (made) return { change, altered: { records: change.sources } };
      const { from, to } = change;
      const isNew = from === 'none' && to === 'live';
      const moved = await within(tx, workspaceId)
        .update(
          sources,
          { presence: to, ...(!isNew && { changedAt: sql`now()` }) },
          and(eq(sources.presence, from), oneOf(sources.id, change.sources)),
        )
        .returning({ id: sources.id });
      const ids = idsOf(moved);
      return ids.length ? { change: { ...change, sources: ids }, altered: { records: ids } } : NOTHING;
    },
  },
  edit: {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      const here = within(tx, workspaceId);
      const one = eq(sources.id, change.source);
      const found = await here.first(sources, { record: sources.record }, one, { lock: 'update' });
      const done = found ? editable(found.record, change) : null;
      if (!found || !done) return NOTHING;
      const known = done.known ?? { from: 'person', sure: 1 };
      const provenance = Object.fromEntries(Object.keys(done.fields).map((f) => [f, known]));
      const after = {
        record: editRecord(found.record, done.fields),
        version: sql`${sources.version} + 1`,
        changedAt: sql`now()`,
        provenance: sql`${sources.provenance} || ${JSON.stringify(provenance)}::jsonb`,
      };
      await here.update(sources, after, one);
      return { change: done, altered: { records: [change.source] } };
    },
  },
};
