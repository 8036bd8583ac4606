import { and, eq, sql } from 'drizzle-orm';
import { correctable, editableFile, sortable } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf } from '../changes/carry.ts';
import { tie } from '../database/tie.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { sources } from '../records/tables.ts';
import { lockedLine, sourcesWith, writeLine } from './corrections.ts';
import { files, pageStates } from './tables.ts';

const FILES = { table: sql`source_files`, column: sql`file_id` };

export const fileChanges: CarriersOf<'attach' | 'file-edit' | 'correct' | 'page-state'> = {
  attach: {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      const { source, file, present } = change;
      const ofFile = eq(files.id, file);
      const here = within(tx, workspaceId);
      // Locked, so that it does not go meanwhile; one that is gone cannot be attached.
      const kept = await here.first(files, { id: files.id }, ofFile, { lock: 'update' });
      if (!kept && present) throw new Refusal('file_gone', change.name);
      const done = await tie(tx, workspaceId, FILES, file, { sources: [source], present });
      if (done.length && !present) await here.update(files, { releasedAt: sql`now()` }, ofFile);
      return done.length ? { change, altered: { records: [source] } } : NOTHING;
    },
  },
  'file-edit': {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      const here = within(tx, workspaceId);
      const ofSource = eq(sources.id, change.source);
      const ofFile = eq(files.id, change.file);
      const source = await here.first(sources, { main: sources.mainFile }, ofSource, { lock: 'update' });
      const file = await here.first(files, { name: files.name, numbering: files.numberedByHand }, ofFile, {
        lock: 'update',
      });
      const done = source && file ? editableFile({ ...file, main: source.main }, change) : null;
      if (!done) return NOTHING;
      const { name, main, numbering } = done.fields;
      if (name) await here.update(files, { name: name.after ?? '' }, ofFile);
      if (numbering) await here.update(files, { numberedByHand: numbering.after }, ofFile);
      if (main) await here.update(sources, { mainFile: main.after }, ofSource);
      return { change: done, altered: {} };
    },
  },
  correct: {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      const now = await lockedLine(tx, workspaceId, change);
      if (now === undefined || !correctable(now, change)) return NOTHING;
      await writeLine(tx, workspaceId, change, change.text.after);
      return { change, altered: { records: await sourcesWith(tx, workspaceId, change.file) } };
    },
  },
  'page-state': {
    may: 'mark',
    async carryOut(tx, workspaceId, change) {
      const here = within(tx, workspaceId);
      const ofFile = eq(files.id, change.file);
      if (!(await here.first(files, { id: files.id }, ofFile, { lock: 'update' }))) return NOTHING;
      const one = and(eq(pageStates.fileId, change.file), eq(pageStates.page, change.page));
      const now = await here.first(pageStates, { state: pageStates.state }, one);
      if (!sortable(now?.state ?? null, change)) return NOTHING;
      const { after: state } = change.state;
      await here.delete(pageStates, one);
      if (state) await here.insert(pageStates, { fileId: change.file, page: change.page, state });
      return { change, altered: {} };
    },
  },
};
