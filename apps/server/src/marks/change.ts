/** Carries out what happens to marks: appearing, going, and edits of gloss and sense. */
import { and, eq, ne } from 'drizzle-orm';
import { editableMark, editedMark } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { within } from '../database/within.ts';
import { markFacets } from './facets.ts';
import { markWords } from './store.ts';
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
      const {
        gloss: words,
        senseId: sense,
        shape: form,
        owner: own,
        fileId: file,
        page,
        quote,
        rects,
        unplaced,
      } = marks;
      const fields = { gloss: words, sense, shape: form, owner: own, file, page, quote, rects, unplaced };
      const found = await here.first(marks, fields, one, { lock: 'update' });
      const now = found && markWords(found);
      const done = now ? editableMark(now, change) : null;
      if (!now || !done) return NOTHING;
      const { sense: senseId, place, ...after } = editedMark(now, done);
      const { file: fileId, ...stands } = place;
      await here.update(marks, { ...after, senseId, fileId, ...stands }, one);
      const { gloss, owner: shown } = done.fields;
      return {
        change: done,
        altered:
          gloss || shown ? { records: [change.source] } : { some: [{ of: markFacets, sources: [change.source] }] },
      };
    },
  },
};
