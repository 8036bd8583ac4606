import { eq, sql } from 'drizzle-orm';
import { alterableGloss } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { idsOf } from '../database/connect.ts';
import { chainFrom } from '../database/merged.ts';
import { rows, text } from '../database/read.ts';
import { within } from '../database/within.ts';
import { glosses } from './tables.ts';

export const glossChanges: CarriersOf<'gloss'> = {
  gloss: {
    may: (change) => (change.own ? 'own' : 'mark'),
    async carryOut(tx, workspaceId, change) {
      const here = within(tx, workspaceId);
      const one = eq(glosses.id, change.gloss);
      const { text: words, owner, present } = glosses;
      const known = await here.first(glosses, { text: words, owner, present }, one, { lock: 'update' });
      const done = known && alterableGloss({ text: known.present ? known.text : null, owner: known.owner }, change);
      if (!done) return NOTHING;
      const { fields } = done;
      await here.update(
        glosses,
        {
          ...(fields.text && { present: fields.text.after !== null, text: fields.text.after ?? '' }),
          ...(fields.owner && { owner: fields.owner.after }),
        },
        one,
      );
      // What it is on may have become part of another, which is found by its words.
      const seed = sql`select ${change.source}::uuid`;
      const wholes = await rows(tx, { id: text() }, sql`${chainFrom(workspaceId, seed)} select id from chain`);
      return { change: done, altered: { records: idsOf(wholes) } };
    },
  },
};
