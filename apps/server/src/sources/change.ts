/** Carries out what happens to sources themselves: coming and going, and edits of their records. */
import { sql } from 'drizzle-orm';
import { editable, editRecord } from '@pandecta/core/changes';
import type { SourceRecord } from '@pandecta/core/source';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { idsOf, one, rows } from '../database/connect.ts';
import { array } from '../database/sql.ts';

export const sourceChanges: CarriersOf<'presence' | 'edit'> = {
  presence: {
    may: 'edit',
    async carryOut(tx, workspaceId, { made, ...change }) {
      // An import has just written them as they are to be: the change tells of them and has nothing left to do.
      if (made) return { change, altered: { records: change.sources } };
      const sources = idsOf(
        await rows<{ id: string }>(
          tx,
          sql`update sources set presence = ${change.to},
            changed_at = case when ${change.to} = 'live' and ${change.from} = 'none' then changed_at else now() end
          where workspace_id = ${workspaceId} and presence = ${change.from} and id = any(${array(change.sources, 'uuid')}) returning id`,
        ),
      );
      return sources.length ? { change: { ...change, sources }, altered: { records: sources } } : NOTHING;
    },
  },
  edit: {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      const found = await one<{ record: SourceRecord }>(
        tx,
        sql`select record from sources where workspace_id = ${workspaceId} and id = ${change.source} for update`,
      );
      const done = found ? editable(found.record, change) : null;
      if (!found || !done) return NOTHING;
      const after = editRecord(found.record, done.fields);
      const provenance = Object.fromEntries(Object.keys(done.fields).map((f) => [f, { from: 'person', sure: 1 }]));
      await tx.execute(sql`update sources set record = ${JSON.stringify(after)}::jsonb, version = version + 1, changed_at = now(),
        provenance = provenance || ${JSON.stringify(provenance)}::jsonb
        where workspace_id = ${workspaceId} and id = ${change.source}`);
      return { change: done, altered: { records: [change.source] } };
    },
  },
};
