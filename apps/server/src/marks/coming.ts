/** What happens to marks when a file comes or changes: its annotations are read in, and the marks of the file it replaces move to it. */
import { and, eq, inArray, sql, type SQL } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Changed } from '@pandecta/contract';
import { mergedNote, senseOf, shapeOf, type Annotation } from '@pandecta/core/annotations';
import type { Change } from '@pandecta/core/changes';
import { rectsOf, spanWithin } from '@pandecta/core/documents';
import { findQuote, isOnWords, quoteAt, spanAfter, type MarkPlace, type Shape } from '@pandecta/core/marks';
import { same } from '@pandecta/core/source';
import { counted } from '@pandecta/core/wording';
import type { Acting, Actor } from '../access/principal.ts';
import { answer, commitWithin } from '../changes/commit.ts';
import { transact, type Db } from '../database/connect.ts';
import { bytes, json, number, orNull, rows, text } from '../database/read.ts';
import { within } from '../database/within.ts';
import type { Coming, MarksOn, Reworded } from '../files/marks-on.ts';
import { readInside } from '../files/numbers.ts';
import { findFileOf } from '../files/store.ts';
import { files } from '../files/tables.ts';
import type { Services } from '../services.ts';
import { sensesOf } from './senses.ts';
import { marks } from './tables.ts';

type With = Pick<Services, 'workers'>;

export const marksOn: MarksOn = { comeWith, keepWords };

async function comeWith(tx: Db, services: With, actor: Actor, coming: Coming[]): Promise<Change[]> {
  const changes: Change[] = [];
  for (const {
    source,
    files: [file],
    instead,
  } of coming)
    if (instead && instead !== file) changes.push(...(await moved(tx, services, actor, { source, file, instead })));
  return [...changes, ...(await fromAnnotations(tx, actor, coming))];
}

const placeOf = (m: Omit<MarkPlace, 'file'> & { fileId: string }): MarkPlace => ({
  file: m.fileId,
  page: m.page,
  quote: m.quote,
  rects: m.rects,
  unplaced: m.unplaced,
});

/** The marks of a file, where they stand in the one that takes its place; each is a change of its own, as it may be one member's. */
async function moved(
  tx: Db,
  { workers }: With,
  { workspaceId }: Actor,
  { source, file, instead }: { source: string; file: string; instead: string },
): Promise<Change[]> {
  const standing = await standingOn(tx, workspaceId, and(eq(marks.fileId, instead), eq(marks.sourceId, source)));
  if (!standing.length) return [];
  const [before, after] = await Promise.all([pagesOf(tx, workspaceId, instead), pagesOf(tx, workspaceId, file)]);
  const places = await workers.run('anchored', { marks: standing, before, after });
  return standing.map((mark, i) => placed(mark, { ...placeOf(mark), ...places[i], file }));
}

type Standing = Omit<MarkPlace, 'file'> & {
  id: string;
  source: string;
  fileId: string;
  shape: Shape;
  owner: string | null;
};

/** Everyone's, also what is one member's own: nobody's marks stay behind. */
async function standingOn(db: Db, workspaceId: string, where: SQL | undefined): Promise<Standing[]> {
  const { id, page, quote, rects, unplaced, shape, owner, fileId, sourceId: source, present } = marks;
  const fields = { id, page, quote, rects, unplaced, shape, owner, fileId, source };
  return within(db, workspaceId).all(marks, fields, and(where, eq(present, true)), { by: [id] });
}

const placed = (mark: Standing, after: MarkPlace): Change => ({
  do: 'mark-edit',
  mark: mark.id,
  source: mark.source,
  fields: { place: { before: placeOf(mark), after } },
  ...(mark.owner && { own: mark.owner }),
});

const pagesOf = (db: Db, workspaceId: string, file: string) =>
  rows(
    db,
    { number, text: text(), words: bytes },
    sql`select number, text, words from pages where workspace_id = ${workspaceId} and file_id = ${file} order by number`,
  );

interface Known {
  id: string;
  source: string;
  name: string;
  gloss: string;
  owner: string | null;
  read: string | null;
}

/** Marks of annotations that are not among the marks of the source yet; of those that are, the note where it was written on. */
async function fromAnnotations(tx: Db, actor: Actor, coming: Coming[]): Promise<Change[]> {
  const here = within(tx, actor.workspaceId);
  const wanted = [...new Set(coming.flatMap((c) => c.files))];
  if (!wanted.length) return [];
  const found = await here.all(
    files,
    { id: files.id, annotations: files.annotations },
    and(inArray(files.id, wanted), sql`jsonb_array_length(${files.annotations}) > 0`),
  );
  if (!found.length) return [];
  const annotationsOf = new Map(found.map((f) => [f.id, f.annotations!]));
  const known = await knownOn(tx, actor.workspaceId, [...new Set(coming.map((c) => c.source))]);
  const senses = await sensesOf(tx, actor);
  const changes: Change[] = [];
  for (const { source, files: of } of coming)
    for (const annotation of of.flatMap((file) => annotationsOf.get(file) ?? [])) {
      // The pages of a scan and of the same with its words are the same.
      const [file] = of;
      const mark = known.get(`${source} ${annotation.name}`);
      if (mark) changes.push(...noted(mark, annotation));
      else {
        const sense = senseOf(annotation, senses);
        if (sense) changes.push(await made(tx, actor, { source, file, sense: sense.id }, annotation));
      }
    }
  return changes;
}

/** By source and name of the annotation; a mark that was written to a file is known by its own id. */
async function knownOn(db: Db, workspaceId: string, sources: string[]): Promise<Map<string, Known>> {
  const all = await rows(
    db,
    { id: text(), source: text(), name: text(), gloss: text(), owner: orNull(text()), read: orNull(text()) },
    sql`select m.id, m.source_id as source, coalesce(m.origin->>'name', m.id::text) as name, m.gloss, m.owner, m.origin->>'note' as read
      from marks m where m.workspace_id = ${workspaceId} and m.source_id = any(${sql.param(sources)}::uuid[])`,
  );
  return new Map(all.map((m) => [`${m.source} ${m.name}`, m]));
}

function noted({ id, source, gloss, owner, read }: Known, { note }: Annotation): Change[] {
  const after = mergedNote(read ?? undefined, gloss, note);
  if (after === gloss) return [];
  return [
    { do: 'mark-edit', mark: id, source, fields: { gloss: { before: gloss, after } }, ...(owner && { own: owner }) },
  ];
}

/** Written as a mark that is not present; the change brings it. */
async function made(
  tx: Db,
  { workspaceId, userId }: Actor,
  { source, file, sense }: { source: string; file: string; sense: string },
  { name, kind, page, rects, quote, note, author, colour, at }: Annotation,
): Promise<Change> {
  const id = uuidv7();
  await within(tx, workspaceId).insert(marks, {
    id,
    sourceId: source,
    fileId: file,
    page,
    senseId: sense,
    shape: shapeOf(kind)!,
    quote,
    rects,
    gloss: note,
    origin: { name, author, kind, note, colour },
    present: false,
    madeBy: userId,
    ...(at && { madeAt: at }),
  });
  return { do: 'mark', mark: id, source, present: true };
}

/** How many annotations of a file are no marks of the source, and never were. */
export async function unreadAnnotations(db: Db, workspaceId: string, source: string, file: string): Promise<number> {
  const [found] = await rows(
    db,
    { names: orNull(json<string[]>()) },
    sql`select jsonb_path_query_array(annotations, '$[*].name') as names from files where workspace_id = ${workspaceId} and id = ${file}`,
  );
  const names = found?.names ?? [];
  if (!names.length) return 0;
  const known = await knownOn(db, workspaceId, [source]);
  return names.filter((name) => !known.has(`${source} ${name}`)).length;
}

/** Reads the annotations of a file in that came before annotations were read. */
export async function readAnnotations(
  services: Services,
  { actor }: Acting,
  source: string,
  file: string,
): Promise<Changed> {
  const { db, followers } = services;
  const { name } = await findFileOf(db, actor, source, file);
  await readInside(services, actor.workspaceId, file);
  const committed = await transact(db, async (tx) => {
    // Of two who read them in at once, the second finds them read.
    await within(tx, actor.workspaceId).first(files, { id: files.id }, eq(files.id, file), { lock: 'update' });
    const changes = await fromAnnotations(tx, actor, [{ source, files: [file] }]);
    const says = `Read ${counted(changes.length, 'annotation')} of ${name} as marks`;
    return changes.length ? commitWithin(tx, actor, { do: 'all', says, changes }) : undefined;
  });
  followers.kick();
  return committed ? answer(committed) : { changeId: null, says: 'There is no annotation that is not a mark already' };
}

/** A mark quotes the words as they are corrected, where it stands on them. */
async function keepWords(db: Db, { workspaceId }: Actor, { file, page, before, after }: Reworded): Promise<Change[]> {
  const standing = await standingOn(db, workspaceId, and(eq(marks.fileId, file), eq(marks.page, page)));
  return standing.flatMap((mark): Change[] => {
    if (!isOnWords(mark.shape)) return [];
    const within = spanWithin(before.words, mark.rects);
    const span = findQuote(before.text, mark.quote, within?.start) ?? within;
    if (!span) return [];
    const now = spanAfter(before.text, after.text, span);
    const quote = quoteAt(after.text, now.start, now.end);
    const rects = rectsOf(after.words, now.start, now.end);
    // Words around it that are others now do not matter.
    if (
      quote.exact === before.text.slice(span.start, span.end) &&
      same(rects, rectsOf(before.words, span.start, span.end))
    )
      return [];
    return [placed(mark, { ...placeOf(mark), quote, rects })];
  });
}
