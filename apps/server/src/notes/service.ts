/** Writing notes: made, changed, parted, joined, shown and removed. */
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Changed, EditNote, NewNote, SplitNote } from '@pandecta/contract';
import type { Change, NoteChange, NoteWords } from '@pandecta/core/changes';
import {
  emptyText,
  faultOf,
  joinTexts,
  lengthOf,
  paragraph,
  quotation,
  sourcesIn,
  takeOut,
  titleFrom,
  type DocNode,
  type Origin,
} from '@pandecta/core/notes';
import { citedPlace } from '@pandecta/core/page-numbers';
import { same } from '@pandecta/core/source';
import { may } from '../access/permissions.ts';
import type { Access } from '../access/principal.ts';
import { refuseByRole } from '../changes/carriers.ts';
import { answer, commitWithin } from '../changes/commit.ts';
import { commitByRole } from '../changes/service.ts';
import { transact, type Db } from '../database/connect.ts';
import { number, orNull, rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { Refusal } from '../errors.ts';
import { numbersOf } from '../files/numbers.ts';
import type { Services } from '../services.ts';
import { visibleTo } from '../subjects/registry.ts';
import { visibleIds } from '../subjects/visible.ts';
import { ensureTags } from '../tags/store.ts';
import { findNote, findNotes } from './store.ts';
import { insertNote, originsOf } from './write.ts';

const UNTITLED = 'Untitled note';

/** A change of a note, naming the sources it speaks of before or after. */
function changeOf(note: string, now: NoteWords, fields: NoteChange['fields']): NoteChange {
  const after = { text: fields.text?.after ?? now.text, from: fields.from?.after ?? now.from };
  const sources = [...new Set([...originsOf(now).keys(), ...originsOf(after).keys()])];
  const own = now.owner && !('owner' in fields) ? { own: now.owner } : {};
  return { do: 'note', note, called: fields.title?.after || now.title || UNTITLED, sources, fields, ...own };
}

/** Makes a note visible whose row was written before, as one that is not present. */
const bringing = (id: string, words: NoteWords): NoteChange =>
  changeOf(id, words, { present: { before: false, after: true } });

export async function makeNote(services: Services, actor: Access, input: NewNote): Promise<Changed> {
  const quoted = input.marks?.length ? await quotedMarks(services.db, actor, input.marks) : [];
  const given = input.text ?? emptyText();
  const fault = faultOf(given);
  if (fault) throw new Refusal('invalid', fault);
  const body = quoted.length ? joinTexts({ type: 'doc', content: quoted }, given) : given;
  const from = input.from ?? [];
  if (!input.title?.trim() && !lengthOf(body)) throw new Refusal('invalid', 'a note has a title or some text');
  const words: NoteWords = {
    title: input.title?.trim() || titleFrom(body),
    text: body,
    event: input.event?.trim() || null,
    about: await knownHeadings(services.db, actor, input.about ?? []),
    tags: [],
    from,
    // Whoever may not mark writes for themselves alone.
    owner: (input.personal ?? !may(actor.role, 'mark')) ? actor.userId : null,
    present: true,
  };
  await refuseUnknownSources(services.db, actor, [...sourcesIn(body), ...from.map((o) => o.source)]);
  const id = uuidv7();
  refuseByRole(actor.role, bringing(id, words));
  const committed = await transact(services.db, async (tx) => {
    words.tags = await tagIds(tx, actor, input.tags ?? []);
    await insertNote(tx, actor.workspaceId, id, actor.userId, words);
    return commitWithin(tx, actor, bringing(id, words));
  });
  services.followers.kick();
  return { ...answer(committed), id };
}

/** Each mark as a quotation with its page, its gloss as a paragraph below. */
async function quotedMarks(db: Db, viewer: Access, ids: string[]): Promise<DocNode[]> {
  const found = await rows(
    db,
    {
      id: text(),
      sourceId: text(),
      fileId: text(),
      page: number,
      y: orNull(number),
      exact: text(),
      gloss: text(),
    },
    sql`select m.id, m.source_id as "sourceId", m.file_id as "fileId", m.page, m.top as y, m.quote->>'exact' as exact, m.gloss
      from unnest(${array(ids, 'uuid')}) with ordinality i(id, place)
      join marks m on m.workspace_id = ${viewer.workspaceId} and m.id = i.id where ${visibleTo(viewer, 'mark', sql`m`)} order by i.place`,
  );
  if (found.length < ids.length) throw new Refusal('no_such_mark');
  const numbers = await numbersOf(db, viewer.workspaceId, found);
  return found.flatMap((m) => {
    const cited = citedPlace(numbers(m), m.page, m.y ?? undefined);
    const origin = { source: m.sourceId, file: m.fileId, page: m.page, cited, mark: m.id };
    return [quotation(origin, m.exact.replace(/\s+/g, ' ').trim()), ...(m.gloss ? m.gloss.split(/\n+/).map(paragraph) : [])]; // prettier-ignore
  });
}

export async function editNote(
  services: Services,
  actor: Access,
  id: string,
  { seen = {}, tags, ...input }: EditNote,
): Promise<Changed> {
  const { db } = services;
  const now = await findNote(db, actor, id);
  if (input.text) {
    const fault = faultOf(input.text);
    if (fault) throw new Refusal('invalid', fault);
    const known = new Set(originsOf(now).keys());
    await refuseUnknownSources(db, actor, sourcesIn(input.text).filter((s) => !known.has(s))); // prettier-ignore
  }
  const about = input.about && (await knownHeadings(db, actor, input.about));
  const fields: NoteChange['fields'] = {};
  if (input.title !== undefined) fields.title = { before: seen.title ?? now.title, after: input.title.trim() };
  if (input.text) fields.text = { before: seen.text ?? now.text, after: input.text };
  if (input.event !== undefined) fields.event = { before: now.event, after: input.event?.trim() || null };
  if (about) fields.about = { before: now.about, after: about };
  if (tags) fields.tags = { before: now.tags, after: await tagIds(db, actor, tags) };
  for (const [name, value] of Object.entries(fields)) if (same(value.before, value.after)) delete fields[name as keyof typeof fields]; // prettier-ignore
  return answer(await commitByRole(services, actor, changeOf(id, now, fields), { joins: true }));
}

export async function removeNote(services: Services, actor: Access, id: string): Promise<Changed> {
  const now = await findNote(services.db, actor, id);
  const change = changeOf(id, now, { present: { before: true, after: false } });
  return answer(await commitByRole(services, actor, change));
}

/** Everyone sees it from now on, and that it was shown. */
export async function shareNote(services: Services, actor: Access, id: string): Promise<Changed> {
  const now = await findNote(services.db, actor, id);
  const change = changeOf(id, now, { owner: { before: now.owner, after: null } });
  return answer(await commitByRole(services, actor, change));
}

/** Makes a note of a stretch of the text. The new one has the sources, headings, tags, date and owner of the old. */
export async function splitNote(services: Services, actor: Access, id: string, input: SplitNote): Promise<Changed> {
  const now = await findNote(services.db, actor, id);
  const { start, end } = input;
  if (input.seen?.text && !same(input.seen.text, now.text)) throw new Refusal('stale_edit', 'the text of the note');
  if (start >= end || start >= lengthOf(now.text)) throw new Refusal('invalid', 'nothing stands there that could become a note'); // prettier-ignore
  const { taken, left } = takeOut(now.text, start, end);
  if (same(left, now.text)) throw new Refusal('invalid', 'nothing stands there that could become a note');
  const from: Origin[] = [...originsOf(now)].map(([source, place]) => ({ source, ...place }));
  const part: NoteWords = { ...now, title: input.title.trim() || titleFrom(taken), text: taken, from };
  const made = uuidv7();
  const rest = changeOf(id, now, {
    text: { before: now.text, after: left },
    ...(!same(now.from, from) && { from: { before: now.from, after: from } }),
  });
  const says = `Took the note “${part.title}” out of “${now.title || UNTITLED}”`;
  return { ...(await commitAll(services, actor, says, [{ id: made, words: part }], [rest])), id: made };
}

/** Others become part of this one, each under its title; they go, and come back when it is undone. */
export async function joinNotes(services: Services, actor: Access, id: string, others: string[]): Promise<Changed> {
  const now = await findNote(services.db, actor, id);
  const wanted = [...new Set(others)].filter((o) => o !== id);
  const found = await findNotes(services.db, actor, wanted);
  if (!wanted.length || found.size < wanted.length) throw new Refusal('no_such_note');
  const parts = wanted.map((o) => found.get(o)!);
  if (parts.some((p) => p.owner !== now.owner)) throw new Refusal('invalid', 'notes of one’s own are joined with others of one’s own'); // prettier-ignore
  const joined: NoteWords = {
    ...now,
    text: parts.reduce((all, p) => joinTexts(all, p.text, p.title), now.text),
    event: now.event ?? parts.find((p) => p.event)?.event ?? null,
    about: [...new Set([now, ...parts].flatMap((p) => p.about))],
    tags: [...new Set([now, ...parts].flatMap((p) => p.tags))],
    from: [...new Map([now, ...parts].flatMap((p) => p.from).map((o) => [JSON.stringify(o), o])).values()],
  };
  const fault = faultOf(joined.text);
  if (fault) throw new Refusal('invalid', fault);
  const fields = Object.fromEntries(
    (['text', 'event', 'about', 'tags', 'from'] as const)
      .filter((f) => !same(now[f], joined[f]))
      .map((f) => [f, { before: now[f], after: joined[f] }]),
  ) as NoteChange['fields'];
  const gone = wanted.map((o) => changeOf(o, found.get(o)!, { present: { before: true, after: false } }));
  const says = `Joined ${parts.map((p) => `“${p.title || UNTITLED}”`).slice(0, 3).join(', ')}${parts.length > 3 ? ' and others' : ''} to the note “${now.title || UNTITLED}”`; // prettier-ignore
  return commitAll(services, actor, says, [], [changeOf(id, now, fields), ...gone]);
}

/** Several changes as one, with the notes they bring. */
async function commitAll(
  services: Services,
  actor: Access,
  says: string,
  made: { id: string; words: NoteWords }[],
  changes: NoteChange[],
): Promise<Changed> {
  const change: Change = { do: 'all', says, changes: [...made.map(({ id, words }) => bringing(id, words)), ...changes] }; // prettier-ignore
  refuseByRole(actor.role, change);
  const committed = await transact(services.db, async (tx) => {
    for (const { id, words } of made) await insertNote(tx, actor.workspaceId, id, actor.userId, words);
    return commitWithin(tx, actor, change);
  });
  services.followers.kick();
  return answer(committed);
}

async function tagIds(db: Db, { workspaceId }: Access, names: string[]): Promise<string[]> {
  return [...new Set((await ensureTags(db, workspaceId, names, false)).values())].sort();
}

async function knownHeadings(db: Db, viewer: Access, ids: string[]): Promise<string[]> {
  const wanted = [...new Set(ids)];
  const found = await visibleIds(db, viewer, 'heading', wanted);
  if (found.length < wanted.length) throw new Refusal('no_such_heading');
  return found;
}

async function refuseUnknownSources(db: Db, viewer: Access, ids: string[]): Promise<void> {
  const wanted = [...new Set(ids)];
  if ((await visibleIds(db, viewer, 'source', wanted)).length < wanted.length) throw new Refusal('no_such_source');
}
