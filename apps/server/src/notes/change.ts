/** Carries out what happens to notes. */
import { eq, sql } from 'drizzle-orm';
import { editableNote, editedNote } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { idsOf } from '../database/connect.ts';
import { chainFrom } from '../database/merged.ts';
import { rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { WORDS } from './store.ts';
import { notes } from './tables.ts';
import { derivedOf, originsOf, writeTies } from './write.ts';

export const noteChanges: CarriersOf<'note'> = {
  note: {
    may: (change) => (change.own ? 'own' : 'mark'),
    async carryOut(tx, workspaceId, change) {
      const here = within(tx, workspaceId);
      const one = eq(notes.id, change.note);
      const known = await here.first(notes, WORDS, one, { lock: 'update' });
      const done = known && editableNote(known, change);
      if (!known || !done) return NOTHING;
      const after = editedNote(known, done);
      const derived = await derivedOf(tx, workspaceId, after);
      await here.update(notes, { ...after, ...derived, changedAt: sql`now()` }, one);
      await writeTies(tx, workspaceId, change.note, after);
      const sources = new Set([known, after].flatMap((words) => [...originsOf(words).keys()]));
      if (!sources.size) return { change: done, altered: {} };
      // What it speaks of may have become part of another, which is found by its words.
      const seed = sql`select unnest(${array([...sources], 'uuid')})`;
      const wholes = await rows(tx, { id: text() }, sql`${chainFrom(workspaceId, seed)} select c.id from chain c join sources s on s.workspace_id = ${workspaceId} and s.id = c.id`); // prettier-ignore
      return { change: done, altered: { records: idsOf(wholes) } };
    },
  },
};
