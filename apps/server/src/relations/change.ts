/** Carries out what is said of how two sources stand to each other. */
import { and, eq, inArray } from 'drizzle-orm';
import { sayable } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { within } from '../database/within.ts';
import { sources } from '../records/tables.ts';
import { relations } from './tables.ts';

export const relationChanges: CarriersOf<'relate'> = {
  relate: {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      const here = within(tx, workspaceId);
      const { from, to, as, said } = change;
      const both = inArray(sources.id, [from, to]);
      // Whoever says something of the two at the same time waits.
      const known = await here.all(sources, { id: sources.id }, both, { by: [sources.id], lock: 'update' });
      if (known.length < 2) return NOTHING;
      const { fromId, toId, note, page } = relations;
      const one = and(eq(fromId, from), eq(toId, to), eq(relations.as, as));
      const now = await here.first(relations, { note, page }, one);
      if (!sayable(now ?? null, change)) return NOTHING;
      if (!said.after) await here.delete(relations, one);
      else if (now) await here.update(relations, said.after, one);
      else await here.insert(relations, { fromId: from, toId: to, as, ...said.after });
      return { change, altered: {} };
    },
  },
};
