import { eq } from 'drizzle-orm';
import { glossable } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { within } from '../database/within.ts';
import { glosses } from './tables.ts';

export const glossChanges: CarriersOf<'gloss'> = {
  gloss: {
    may: 'mark',
    async carryOut(tx, workspaceId, change) {
      const here = within(tx, workspaceId);
      const one = eq(glosses.id, change.gloss);
      const known = await here.first(glosses, { text: glosses.text, present: glosses.present }, one, { lock: 'update' });
      if (!known || !glossable(known.present ? known.text : null, change)) return NOTHING;
      const { after } = change.text;
      await here.update(glosses, { present: after !== null, text: after ?? '' }, one);
      return { change, altered: { records: [change.source] } };
    },
  },
};
