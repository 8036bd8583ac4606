import { sql } from 'drizzle-orm';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { tie } from '../database/tie.ts';

const FILES = { table: sql`source_files`, column: sql`file_id` };

export const fileChanges: CarriersOf<'attach'> = {
  attach: {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      const { source, file, present } = change;
      const done = await tie(tx, workspaceId, FILES, file, { sources: [source], present });
      return done.length ? { change, altered: { records: [source] } } : NOTHING;
    },
  },
};
