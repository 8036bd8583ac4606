/** Carries out what happens to entries of the workspace's short lists. */
import { and, eq, sql, type SQL } from 'drizzle-orm';
import { enterable, ownerOf, type List } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { refuseCircle } from '../database/circle.ts';
import { within } from '../database/within.ts';
import { LIST_KINDS } from './kinds.ts';
import { entries } from './tables.ts';

/** Which entry of a list stands under which. */
const underIn = (workspaceId: string, list: List): SQL =>
  sql`select id, (value->>'parent')::uuid from entries where workspace_id = ${workspaceId} and list = ${list}`;

export const listChanges: CarriersOf<'entry'> = {
  entry: {
    // What is everyone's is arranged; what is a member's own is theirs.
    may: (change) => (ownerOf(change) ? 'own' : 'arrange'),
    async refuse(db, taker, { list, value: { before, after } }) {
      await LIST_KINDS.all[list].refuse?.(db, taker, [before, after]);
    },
    async carryOut(tx, workspaceId, change) {
      const { list, entry: id, value } = change;
      const here = within(tx, workspaceId);
      const one = and(eq(entries.list, list), eq(entries.id, id));
      const found = await here.first(entries, { value: entries.value }, one, { lock: 'update' });
      if (!enterable(found?.value ?? null, change)) return NOTHING;
      if (!value.after) await here.delete(entries, one);
      else if (found) await here.update(entries, { value: value.after }, one);
      else await here.insert(entries, { id, list, value: value.after });
      const into = value.after?.parent;
      if (typeof into === 'string') await refuseCircle(tx, workspaceId, list, underIn(workspaceId, list), id, into);
      return { change, altered: (await LIST_KINDS.all[list].follows?.(tx, workspaceId, id)) ?? {} };
    },
  },
};
