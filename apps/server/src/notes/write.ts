/** A note as a row, with what is derived of it. */
import { createHash } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { NoteWords } from '@pandecta/core/changes';
import { eventSpan, linksIn, plainText, quotationsIn, type Origin } from '@pandecta/core/notes';
import { Lexemes } from '@pandecta/core/words';
import type { Db } from '../database/connect.ts';
import { prefixOf } from '../database/lexemes.ts';
import { within } from '../database/within.ts';
import { workspaceOf } from '../records/workspace.ts';
import { noteLinks, notes, noteSources } from './tables.ts';

/** What is derived of a note, for its row. */
export async function derivedOf(tx: Db, workspaceId: string, { title, text, event }: NoteWords) {
  const plain = plainText(text);
  const { number } = await workspaceOf(tx, workspaceId);
  const words = new Lexemes();
  words.add(prefixOf(number), title, 'A');
  words.add(prefixOf(number), plain);
  const span = event ? eventSpan(event) : undefined;
  return { plain, vector: words.toString(), eventFrom: span?.from ?? null, eventTo: span?.to ?? null };
}

/** The sources it speaks of, each with the first place the note names in it. */
export function originsOf({ text, from }: Pick<NoteWords, 'text' | 'from'>): Map<string, Omit<Origin, 'source'>> {
  const found = new Map<string, Omit<Origin, 'source'>>();
  const add = ({ source, ...place }: Origin): void => {
    const known = found.get(source);
    if (!known || (known.page === null && place.page !== null)) found.set(source, place);
  };
  for (const { origin } of quotationsIn(text)) if (origin) add(origin);
  from.forEach(add);
  for (const link of linksIn(text))
    if (link.to === 'source') add({ source: link.id, file: null, page: null, cited: '', mark: null });
  return found;
}

/** Made of both, so that it stays the same as the note is written anew. */
const idOf = (note: string, source: string): string =>
  createHash('sha256').update(`${note} ${source}`).digest('hex').slice(0, 32).replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5'); // prettier-ignore

/** Writes the tables that are derived of a note anew. */
export async function writeTies(tx: Db, workspaceId: string, note: string, words: NoteWords): Promise<void> {
  const here = within(tx, workspaceId);
  await here.delete(noteSources, eq(noteSources.noteId, note));
  await here.delete(noteLinks, eq(noteLinks.noteId, note));
  if (!words.present) return;
  const sources = [...originsOf(words)].map(([sourceId, { file, page, cited, mark }], place) => ({
    id: idOf(note, sourceId),
    noteId: note,
    sourceId,
    place,
    fileId: file,
    page,
    cited,
    markId: mark,
  }));
  if (sources.length) await here.insert(noteSources, ...sources);
  const links = new Map(
    linksIn(words.text).map(({ to, id, how }) => [
      `${id} ${how}`,
      { noteId: note, to, targetId: id, how: how ?? ('' as const) },
    ]),
  );
  if (links.size) await here.insert(noteLinks, ...links.values());
}

/** Writes a note that is not there yet, unseen until its change brings it. */
export async function insertNote(tx: Db, workspaceId: string, id: string, madeBy: string, words: NoteWords) {
  const derived = await derivedOf(tx, workspaceId, words);
  await within(tx, workspaceId).insert(notes, { id, ...words, ...derived, present: false, madeBy });
}
