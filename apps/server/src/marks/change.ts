/** Carries out what happens to marks: appearing, going, and edits of gloss and sense. */
import { and, eq, ne } from 'drizzle-orm';
import { editableMark, editedMark } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { within } from '../database/within.ts';
import { markFacets } from './facets.ts';
import { marks } from './tables.ts';

export const markChanges: CarriersOf<'mark' | 'mark-edit'> = {
  mark: {
    may: (change) => (change.own ? 'own' : 'mark'),
    async carryOut(tx, workspaceId, change) {
      const { mark, present } = change;
      const done = await within(tx, workspaceId)
        .update(marks, { present }, and(eq(marks.id, mark), ne(marks.present, present)))
        .returning({ id: marks.id });
      return done.length ? { change, altered: { records: [change.source] } } : NOTHING;
    },
  },
  'mark-edit': {
    may: (change) => (change.own ? 'own' : 'mark'),
    async carryOut(tx, workspaceId, change) {
      const here = within(tx, workspaceId);
      const one = eq(marks.id, change.mark);
      const { gloss: words, senseId: sense, shape, owner } = marks;
      const found = await here.first(marks, { gloss: words, sense, shape, owner }, one, { lock: 'update' });
      const done = found ? editableMark(found, change) : null;
      if (!found || !done) return NOTHING;
      const { sense: senseId, ...after } = editedMark(found, done);
      await here.update(marks, { ...after, senseId }, one);
      const { gloss, owner: shown } = done.fields;
      return {
        change: done,
        altered:
          gloss || shown ? { records: [change.source] } : { some: [{ of: markFacets, sources: [change.source] }] },
      };
    },
  },
};
