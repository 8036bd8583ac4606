/** Carries out what happens to marks: appearing, going, and edits of gloss and sense. */
import { sql } from 'drizzle-orm';
import { editableMark } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { one } from '../database/connect.ts';

export const markChanges: CarriersOf<'mark' | 'mark-edit'> = {
  mark: {
    may: 'mark',
    async carryOut(tx, workspaceId, change) {
      const done = await one(
        tx,
        sql`update marks set present = ${change.present} where workspace_id = ${workspaceId} and id = ${change.mark} and present <> ${change.present} returning 1`,
      );
      return done ? { change, altered: { records: [change.source] } } : NOTHING;
    },
  },
  'mark-edit': {
    may: 'mark',
    async carryOut(tx, workspaceId, change) {
      const found = await one<{ gloss: string; sense: string }>(
        tx,
        sql`select gloss, sense_id as sense from marks where workspace_id = ${workspaceId} and id = ${change.mark} for update`,
      );
      const done = found ? editableMark(found, change) : null;
      if (!found || !done) return NOTHING;
      const { gloss, sense } = done.fields;
      await tx.execute(sql`update marks set gloss = ${gloss ? (gloss.after ?? '') : found.gloss},
        sense_id = ${sense?.after ?? found.sense} where workspace_id = ${workspaceId} and id = ${change.mark}`);
      return { change: done, altered: gloss ? { records: [change.source] } : {} };
    },
  },
};
