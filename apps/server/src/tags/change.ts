import { and, eq, ne, sql, type SQL } from 'drizzle-orm';
import { movesUnder, nameable } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { isCircle } from '../database/circle.ts';
import { tie } from '../database/tie.ts';
import { within } from '../database/within.ts';
import { tagFacets } from './facets.ts';
import { taggedWith } from './store.ts';
import { tags } from './tables.ts';

const TAGS = { table: sql`source_tags`, column: sql`tag_id` };

/** Which term stands under which. */
const underIn = (workspaceId: string): SQL => sql`select id, broader from tags where workspace_id = ${workspaceId}`;

export const tagChanges: CarriersOf<'tag' | 'term'> = {
  tag: {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      const sources = await tie(tx, workspaceId, TAGS, change.tag, change);
      if (!sources.length) return NOTHING;
      // Subject terms are words of the record.
      return {
        change: { ...change, sources },
        altered: change.subject ? { records: sources } : { some: [{ of: tagFacets, sources }] },
      };
    },
  },
  term: {
    may: 'arrange',
    async carryOut(tx, workspaceId, change) {
      const here = within(tx, workspaceId);
      const { before, after } = change.term;
      const one = eq(tags.id, change.tag);
      const { name, subject, says, heading, broader } = tags;
      const found = await here.first(tags, { name, subject, says, heading, broader }, one, { lock: 'update' });
      const other =
        after && and(ne(tags.id, change.tag), eq(subject, after.subject), sql`lower(${name}) = lower(${after.name})`);
      const isTaken = other ? await here.has(tags, other) : false;
      const into = movesUnder(change);
      const circles = into ? await isCircle(tx, workspaceId, 'terms', underIn(workspaceId), change.tag, into) : false;
      if (!nameable(found ?? null, { isTaken, isCircle: circles }, change)) return NOTHING;
      if (!after) await here.delete(tags, one);
      else if (found) await here.update(tags, { ...after }, one);
      else await here.insert(tags, { id: change.tag, ...after });
      const borne = (await taggedWith(tx, workspaceId, [change.tag])).get(change.tag)!;
      const isWord = (before?.subject ?? false) || (after?.subject ?? false);
      return { change, altered: isWord ? { records: borne } : { some: [{ of: tagFacets, sources: borne }] } };
    },
  },
};
