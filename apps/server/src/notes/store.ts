/** Notes as a member sees them. */
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { NoteHeading, NoteReply, NoteSource } from '@pandecta/contract';
import type { NoteWords } from '@pandecta/core/changes';
import type { DocNode, How } from '@pandecta/core/notes';
import { inPassing, withoutMarkup, type SourceRecord } from '@pandecta/core/source';
import type { Actor } from '../access/principal.ts';
import { nameOfActor } from '../access/people.ts';
import type { Db } from '../database/connect.ts';
import { json, list, number, orNull, rows, text, truth } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { countedHeadings } from '../headings/store.ts';
import { visibleTo } from '../subjects/registry.ts';
import { notes } from './tables.ts';

const { title, text: doc, event, about, tags, from, owner, present } = notes;
/** So many notes that lead to one are told. */
const MOST_LEADING = 100;
/** The columns of what a change can alter. */
export const WORDS = { title, text: doc, event, about, tags, from, owner, present };

/** @throws Refusal where it is not there, or may not be seen */
export async function findNote(db: Db, viewer: Actor, id: string): Promise<NoteWords> {
  const one = and(eq(notes.id, id), visibleTo(viewer, 'note', sql`notes`));
  const found = await within(db, viewer.workspaceId).first(notes, WORDS, one);
  if (!found) throw new Refusal('no_such_note');
  return found;
}

export async function findNotes(db: Db, viewer: Actor, ids: string[]): Promise<Map<string, NoteWords>> {
  const those = and(inArray(notes.id, ids), visibleTo(viewer, 'note', sql`notes`));
  const found = await within(db, viewer.workspaceId).all(notes, { id: notes.id, ...WORDS }, those);
  return new Map(found.map(({ id, ...words }) => [id, words]));
}

/** The sources of notes that the viewer may see, in the order the notes name them. */
export async function sourcesOf(db: Db, viewer: Actor, ids: string[]): Promise<Map<string, NoteSource[]>> {
  const found = await rows(
    db,
    {
      note: text(),
      id: text(),
      title: text(),
      record: json<SourceRecord>(),
      cited: text(),
      file: orNull(text()),
      page: orNull(number),
      mark: orNull(text()),
    },
    sql`select t.note_id as note, s.id, coalesce(s.record->>'title', 'Untitled') as title, t.cited, t.file_id as file, t.page, t.mark_id as mark,
        jsonb_build_object('author', s.record->'author', 'editor', s.record->'editor', 'issued', s.record->'issued') as record
      from note_sources t join sources s on s.workspace_id = t.workspace_id and s.id = t.source_id
      where t.workspace_id = ${viewer.workspaceId} and t.note_id = any(${array(ids, 'uuid')}) and ${visibleTo(viewer, 'source', sql`s`)} order by t.note_id, t.place`,
  );
  const of = new Map<string, NoteSource[]>();
  for (const { note, record, title, ...source } of found) {
    const plain = withoutMarkup(title);
    const list = of.get(note) ?? [];
    of.set(note, list);
    list.push({ ...source, title: plain, name: inPassing(record, plain) });
  }
  return of;
}

/** Those of the notes that the viewer may see, in the order of the ids. */
export async function notesAsSeen(db: Db, viewer: Actor, ids: string[]): Promise<NoteReply[]> {
  const w = viewer.workspaceId;
  const wanted = array(ids, 'uuid');
  const [found, sources, leading] = await Promise.all([
    rows(
      db,
      {
        id: text(),
        title: text(),
        text: json<DocNode>(),
        event: orNull(text()),
        dated: truth,
        about: json<NoteHeading[]>(),
        tags: list(text()),
        by: text(),
        made: text(),
        changed: text(),
        personal: truth,
      },
      sql`select n.id, n.title, n.text, n.event, n.event_from is not null as dated, n.owner is not null as personal, n.made_at as made, n.changed_at as changed, ${nameOfActor} as by,
          coalesce((select jsonb_agg(jsonb_build_object('id', e.id, 'name', e.value->>'name', 'kind', e.value->>'kind') order by a.place)
            from unnest(n.about) with ordinality a(id, place) join (${countedHeadings(w)}) h on h.id = a.id
            join entries e on e.workspace_id = n.workspace_id and e.list = 'heading' and e.id = h.counts), '[]') as about,
          array(select g.name from tags g where g.workspace_id = n.workspace_id and g.id = any(n.tags) order by lower(g.name)) as tags
        from unnest(${wanted}) with ordinality i(id, place) join notes n on n.workspace_id = ${w} and n.id = i.id left join users u on u.id = n.made_by
        where ${visibleTo(viewer, 'note', sql`n`)} order by i.place`,
    ),
    sourcesOf(db, viewer, ids),
    rows(
      db,
      { target: text(), id: text(), title: text(), how: text<How | ''>() },
      sql`select i.id as target, l.* from unnest(${wanted}) i(id), lateral (
        select n.id, n.title, l.how from note_links l join notes n on n.workspace_id = l.workspace_id and n.id = l.note_id
        where l.workspace_id = ${w} and l.target_id = i.id and ${visibleTo(viewer, 'note', sql`n`)} order by n.title collate "pandecta", n.id limit ${MOST_LEADING}) l`,
    ),
  ]);
  const leads = new Map<string, NoteReply['leadsHere']>(ids.map((id) => [id, []]));
  for (const { target, how, ...note } of leading) leads.get(target)!.push({ to: 'note', ...note, how: how || null });
  return found.map((note) => ({
    ...note,
    // Two that were merged are one.
    about: [...new Map(note.about.map((h) => [h.id, h])).values()],
    sources: sources.get(note.id) ?? [],
    leadsHere: leads.get(note.id)!,
  }));
}

export async function noteAsSeen(db: Db, viewer: Actor, id: string): Promise<NoteReply> {
  const [found] = await notesAsSeen(db, viewer, [id]);
  if (!found) throw new Refusal('no_such_note');
  return found;
}
