import { sql } from 'drizzle-orm';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { tie } from '../database/tie.ts';

const TAGS = { table: sql`source_tags`, column: sql`tag_id` };

export const tagChanges: CarriersOf<'tag'> = {
  tag: {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      const sources = await tie(tx, workspaceId, TAGS, change.tag, change);
      if (!sources.length) return NOTHING;
      // Subject terms are words of the record.
      return { change: { ...change, sources }, altered: change.subject ? { records: sources } : { facets: sources } };
    },
  },
};
