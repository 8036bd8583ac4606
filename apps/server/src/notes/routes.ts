import { sql } from 'drizzle-orm';
import { routes } from '@pandecta/contract';
import { number, one } from '../database/read.ts';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { visibleTo } from '../subjects/registry.ts';
import { notesAsked, timeline, web } from './asking.ts';
import { checkNote } from './checking.ts';
import { writtenNotes } from './export.ts';
import { editOutline, makeOutline, outlinesOf, removeOutline } from './outlines.ts';
import { editNote, joinNotes, makeNote, removeNote, shareNote, splitNote } from './service.ts';
import { noteAsSeen } from './store.ts';

export function noteRoutes(declare: Declare, services: Services): void {
  const { db } = services;
  const { notes, outlines } = routes;
  declare(notes.list, (call) => notesAsked(services, call, call.body));
  declare(notes.count, async ({ actor }) => {
    const all = sql`select count(*)::int as total from notes n where n.workspace_id = ${actor.workspaceId} and ${visibleTo(actor, 'note', sql`n`)}`; // prettier-ignore
    return (await one(db, { total: number }, all))!;
  });
  declare(notes.timeline, (call) => timeline(services, call, call.body));
  declare(notes.web, (call) => web(services, call, call.body));
  declare(notes.one, ({ actor, params }) => noteAsSeen(db, actor, params.note));
  declare(notes.make, ({ actor, body }) => makeNote(services, actor, body));
  declare(notes.edit, ({ actor, params, body }) => editNote(services, actor, params.note, body));
  declare(notes.remove, ({ actor, params }) => removeNote(services, actor, params.note));
  declare(notes.share, ({ actor, params }) => shareNote(services, actor, params.note));
  declare(notes.split, ({ actor, params, body }) => splitNote(services, actor, params.note, body));
  declare(notes.join, ({ actor, params, body }) => joinNotes(services, actor, params.note, body.notes));
  declare(notes.check, (call) => checkNote(services, call, call.params.note));
  declare(notes.export, async (call) => {
    const { bytes, mediaType, name } = await writtenNotes(services, call, call.body);
    return call.reply
      .type(mediaType)
      .header('content-disposition', `attachment; filename="${name}"`)
      .send(Buffer.from(bytes));
  });

  declare(outlines.list, async ({ actor }) => ({ outlines: await outlinesOf(db, actor) }));
  declare(outlines.make, (call) => makeOutline(services, call, call.body));
  declare(outlines.edit, (call) => editOutline(services, call, call.params.outline, call.body));
  declare(outlines.remove, (call) => removeOutline(services, call, call.params.outline));
}
