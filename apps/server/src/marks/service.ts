/** Making, changing, showing and removing marks. */
import { and, eq } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Changed, EditMark, NewMark, NewPlace } from '@pandecta/contract';
import type { Change, MarkEditChange, MarkWords } from '@pandecta/core/changes';
import { rectsOf, unpackWords } from '@pandecta/core/documents';
import { findQuote, isOnWords, type MarkPlace, type Rect } from '@pandecta/core/marks';
import type { Access } from '../access/principal.ts';
import { refuseByRole } from '../changes/carriers.ts';
import { answer, commitWithin } from '../changes/commit.ts';
import { commitByRole } from '../changes/service.ts';
import { transact, type Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { findFileOf } from '../files/store.ts';
import { files, pages as pagesOfFiles } from '../files/tables.ts';
import { entryOf } from '../lists/store.ts';
import type { Services } from '../services.ts';
import { findMark } from './store.ts';
import { marks } from './tables.ts';

export async function makeMark(
  services: Services,
  actor: Access,
  { source, file }: { source: string; file: string },
  input: NewMark,
): Promise<Changed> {
  const { db, followers } = services;
  const { pages } = await findFileOf(db, actor, source, file);
  // Of a locked file nobody knows how many it has.
  if (pages && input.page > pages) throw new Refusal('invalid', `the file has no page ${input.page}`);
  await refuseUnknownSense(db, actor, input.sense);
  const shape = input.shape ?? 'highlight';
  if (!isOnWords(shape) && input.rects.length !== 1)
    throw new Refusal('invalid', 'a region and a point have one place on the page');
  const rects =
    input.rects.length || !isOnWords(shape) ? input.rects : await placeOf(db, actor.workspaceId, file, input);
  const id = uuidv7();
  const own = input.personal ? actor.userId : undefined;
  const change: Change = { do: 'mark', mark: id, source, present: true, ...(own && { own }) };
  refuseByRole(actor.role, change);
  const committed = await transact(db, async (tx) => {
    // Unseen until the change brings it.
    await within(tx, actor.workspaceId).insert(marks, {
      id,
      sourceId: source,
      fileId: file,
      page: input.page,
      senseId: input.sense,
      shape,
      owner: own,
      quote: input.quote,
      rects,
      gloss: input.gloss ?? '',
      present: false,
      madeBy: actor.userId,
    });
    return commitWithin(tx, actor, change);
  });
  followers.kick();
  return { ...answer(committed), id };
}

/** Where the quoted words stand on the page; nowhere where they are not found there. */
async function placeOf(
  db: Db,
  workspaceId: string,
  file: string,
  { page, quote }: Pick<NewMark, 'page' | 'quote'>,
): Promise<Rect[]> {
  const { text, words, fileId, number } = pagesOfFiles;
  const found = await within(db, workspaceId).first(
    pagesOfFiles,
    { text, words },
    and(eq(fileId, file), eq(number, page)),
  );
  const at = found && findQuote(found.text, quote);
  return at ? rectsOf(unpackWords(found.words), at.start, at.end) : [];
}

const EDITED = ['gloss', 'sense', 'shape'] as const satisfies (keyof MarkWords)[];

export async function editMark(
  services: Services,
  actor: Access,
  id: string,
  { seen = {}, ...input }: EditMark,
): Promise<Changed> {
  const { named, now } = await findMark(services.db, actor, id);
  if (input.sense) await refuseUnknownSense(services.db, actor, input.sense);
  const fields: MarkEditChange['fields'] = Object.fromEntries(
    EDITED.flatMap((field) => {
      const after = input[field];
      return after === undefined || after === now[field] ? [] : [[field, { before: seen[field] ?? now[field], after }]];
    }),
  );
  if (input.place)
    fields.place = { before: now.place, after: await placedAt(services.db, actor, now.place, input.place) };
  return answer(await commitByRole(services, actor, { do: 'mark-edit', ...named, fields }, { joins: !input.place }));
}

/** Where a person placed it anew, in the same document. */
async function placedAt(db: Db, { workspaceId }: Access, now: MarkPlace, place: NewPlace): Promise<MarkPlace> {
  const { quote, page } = place;
  const file = await within(db, workspaceId).first(files, { pages: files.pages }, eq(files.id, now.file));
  if (file?.pages && page > file.pages) throw new Refusal('invalid', `the file has no page ${page}`);
  const rects = place.rects.length ? place.rects : await placeOf(db, workspaceId, now.file, { page, quote });
  return { file: now.file, page, quote, rects, unplaced: false };
}

export async function removeMark(services: Services, actor: Access, id: string): Promise<Changed> {
  const { named } = await findMark(services.db, actor, id);
  return answer(await commitByRole(services, actor, { do: 'mark', ...named, present: false }));
}

/** Everyone sees it from now on, and that it was shown. */
export async function shareMark(services: Services, actor: Access, id: string): Promise<Changed> {
  const { named, now } = await findMark(services.db, actor, id);
  const { own: _, ...shown } = named;
  return answer(
    await commitByRole(services, actor, {
      do: 'mark-edit',
      ...shown,
      fields: { owner: { before: now.owner, after: null } },
    }),
  );
}

async function refuseUnknownSense(db: Db, actor: Access, id: string): Promise<void> {
  if (!(await entryOf(db, actor, 'sense', id))) throw new Refusal('invalid', 'there is no such sense');
}
