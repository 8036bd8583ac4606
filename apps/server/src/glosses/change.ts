import { eq, sql } from 'drizzle-orm';
import { glossable } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { idsOf } from '../database/connect.ts';
import { chainFrom } from '../database/merged.ts';
import { rows, text } from '../database/read.ts';
import { within } from '../database/within.ts';
import { glosses } from './tables.ts';

export const glossChanges: CarriersOf<'gloss'> = {
  gloss: {
    may: 'mark',
    async carryOut(tx, workspaceId, change) {
      const here = within(tx, workspaceId);
      const one = eq(glosses.id, change.gloss);
      const known = await here.first(glosses, { text: glosses.text, present: glosses.present }, one, {
        lock: 'update',
      });
      if (!known || !glossable(known.present ? known.text : null, change)) return NOTHING;
      const { after } = change.text;
      await here.update(glosses, { present: after !== null, text: after ?? '' }, one);
      // What it is on may have become part of another, which is found by its words.
      const seed = sql`select ${change.source}::uuid`;
      const wholes = await rows(tx, { id: text() }, sql`${chainFrom(workspaceId, seed)} select id from chain`);
      return { change, altered: { records: idsOf(wholes) } };
    },
  },
};
