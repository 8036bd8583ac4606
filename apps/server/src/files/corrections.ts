/** Lines of pages as they were corrected: what is searched, quoted and shown; what was read first stays beside it. */
import { and, between, eq, sql } from 'drizzle-orm';
import type { Changed, CorrectLine, LinesOfPage } from '@pandecta/contract';
import { describe, type Change, type CorrectChange } from '@pandecta/core/changes';
import { correctedPage, linesOf, lineText, packWords, unpackWords, type PageText } from '@pandecta/core/documents';
import { Lexemes } from '@pandecta/core/words';
import type { Acting, Actor } from '../access/principal.ts';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import { idsOf, type Db } from '../database/connect.ts';
import { prefixOf } from '../database/lexemes.ts';
import { bytes, number, one, orNull, rows, text } from '../database/read.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { documents } from '../indexing/tables.ts';
import { workspaceOf } from '../records/workspace.ts';
import type { Services } from '../services.ts';
import { MARKS_ON } from './marks-on.ts';
import { corrections, pages, pagesAsRead } from './tables.ts';

type Line = Pick<CorrectChange, 'file' | 'page' | 'line'>;

const pageAt = (file: string, page: number) => and(eq(pages.fileId, file), eq(pages.number, page));

/** The page as it was read first. */
async function asRead(db: Db, workspaceId: string, file: string, page: number): Promise<PageText | undefined> {
  const here = within(db, workspaceId);
  const { text: kept, words: keptWords, fileId, number: of } = pagesAsRead;
  const found =
    (await here.first(pagesAsRead, { text: kept, words: keptWords }, and(eq(fileId, file), eq(of, page)))) ??
    (await here.first(pages, { text: pages.text, words: pages.words }, pageAt(file, page)));
  return found && { text: found.text, words: unpackWords(found.words) };
}

async function correctedLines(db: Db, workspaceId: string, file: string, page: number): Promise<Map<number, string>> {
  const { fileId, page: of, line, text: written } = corrections;
  const found = await within(db, workspaceId).all(corrections, { line, written }, and(eq(fileId, file), eq(of, page)));
  return new Map(found.map((c) => [c.line, c.written]));
}

/** How the line was corrected, null where it was not; undefined where there is none. Its page is locked. */
export async function lockedLine(
  tx: Db,
  workspaceId: string,
  { file, page, line }: Line,
): Promise<string | null | undefined> {
  const locked = await within(tx, workspaceId).first(pages, { number: pages.number }, pageAt(file, page), {
    lock: 'update',
  });
  const first = locked && (await asRead(tx, workspaceId, file, page));
  if (!first || line >= linesOf(first).length) return undefined;
  return (await correctedLines(tx, workspaceId, file, page)).get(line) ?? null;
}

/** Writes the line, and the page anew: its text, the places of its words, and what is searched of it. */
export async function writeLine(
  tx: Db,
  workspaceId: string,
  { file, page, line }: Line,
  written: string | null,
): Promise<void> {
  const here = within(tx, workspaceId);
  const first = (await asRead(tx, workspaceId, file, page))!;
  await here
    .insert(pagesAsRead, { fileId: file, number: page, text: first.text, words: Buffer.from(packWords(first.words)) })
    .onConflictDoNothing();
  const { fileId, page: of, line: at } = corrections;
  await here.delete(corrections, and(eq(fileId, file), eq(of, page), eq(at, line)));
  if (written !== null) await here.insert(corrections, { fileId: file, page, line, text: written });
  const now = correctedPage(first, await correctedLines(tx, workspaceId, file, page));
  await here.update(pages, { text: now.text, words: Buffer.from(packWords(now.words)) }, pageAt(file, page));
  const workspace = await workspaceOf(tx, workspaceId);
  const words = new Lexemes();
  words.add(prefixOf(workspace.number), now.text);
  await here.update(
    documents,
    { vector: words.toString() },
    and(eq(documents.kind, 'page'), eq(documents.id, file), eq(documents.part, page)),
  );
}

export async function sourcesWith(db: Db, workspaceId: string, file: string): Promise<string[]> {
  return idsOf(
    await rows(
      db,
      { id: text() },
      sql`select source_id as id from source_files where workspace_id = ${workspaceId} and file_id = ${file}`,
    ),
  );
}

/** Less sure than this, in percent, a word is shown as one to look at (the measure of Tesseract; by trial on the demo's scans). */
const UNSURE_BELOW = 75;

export async function linesOfPage(
  services: Services,
  { actor }: Acting,
  file: string,
  page: number,
): Promise<LinesOfPage> {
  const { workspaceId } = actor;
  const { db } = services;
  const first = await asRead(db, workspaceId, file, page);
  const stored = await one(
    db,
    { width: number, height: number, confidence: orNull(bytes) },
    sql`select width, height, confidence from pages where workspace_id = ${workspaceId} and file_id = ${file} and number = ${page}`,
  );
  if (!first || !stored) throw new Refusal('no_such_file');
  const done = await correctedLines(db, workspaceId, file, page);
  const lines = linesOf(first);
  let word = 0;
  const found: LinesOfPage = {
    page,
    width: stored.width,
    height: stored.height,
    lines: lines.map((line, i) => {
      const recognised = lineText(first.text, lines, i);
      const from = word;
      word += line.words.length;
      const isUnsure = (k: number): boolean => (stored.confidence?.[from + k] ?? 255) < UNSURE_BELOW;
      const unsure = line.words.flatMap((w, k) =>
        isUnsure(k) ? [{ start: w.start - line.start, end: w.end - line.start }] : [],
      );
      return { line: i, box: line.box, recognised, text: done.get(i) ?? recognised, unsure: done.has(i) ? [] : unsure };
    }),
  };
  return withProposals(services, workspaceId, file, found);
}

/** Words of so many pages before and after say what an unsure word may be. */
const NEIGHBOURS = 20;

/** What each unsure word may be, by the words of the pages around it. */
async function withProposals(
  { db, workers }: Services,
  workspaceId: string,
  file: string,
  found: LinesOfPage,
): Promise<LinesOfPage> {
  const unsure = found.lines.flatMap((line) =>
    line.unsure.map((w) => ({ ...w, says: line.text.slice(w.start, w.end) })),
  );
  if (!unsure.length) return found;
  const around = and(eq(pages.fileId, file), between(pages.number, found.page - NEIGHBOURS, found.page + NEIGHBOURS));
  const texts = await within(db, workspaceId).all(pages, { text: pages.text }, around);
  const proposed = await workers.run('proposals', {
    words: unsure.map((w) => w.says),
    texts: texts.map((p) => p.text),
  });
  let next = 0;
  const lines = found.lines.map((line) => ({
    ...line,
    unsure: line.unsure.map((w) => {
      const proposal = proposed[next++];
      return proposal ? { ...w, proposal } : w;
    }),
  }));
  return { ...found, lines };
}

/** @throws Refusal where the line reads otherwise than the person saw it */
export async function correctLine(
  services: Services,
  { actor }: Acting,
  source: string,
  file: string,
  { page, line, text: written, seen }: CorrectLine,
): Promise<Changed> {
  const first = await asRead(services.db, actor.workspaceId, file, page);
  const lines = first ? linesOf(first) : [];
  if (!lines[line]) throw new Refusal('invalid', `page ${page} has no line ${line + 1}`);
  const recognised = lineText(first!.text, lines, line);
  // A line that reads as it was recognised is not corrected.
  const value = (said: string): string | null => (said.trim() === recognised ? null : said.trim());
  const text = { before: value(seen), after: value(written ?? recognised) };
  const change: Change = { do: 'correct', source, file, page, line, text };
  const along = await marksAlong(services.db, actor, first!, { file, page, line }, text.after);
  if (!along.length) return answer(await commit(services, actor, change, { joins: true }));
  return answer(await commit(services, actor, { do: 'all', says: describe(change), changes: [change, ...along] }));
}

/** The marks on the page, with the words they have once the line is corrected. @param first the page as it was read first */
async function marksAlong(
  db: Db,
  actor: Actor,
  first: PageText,
  { file, page, line }: Line,
  written: string | null,
): Promise<Change[]> {
  const lines = await correctedLines(db, actor.workspaceId, file, page);
  const before = correctedPage(first, lines);
  if (written === null) lines.delete(line);
  else lines.set(line, written);
  return MARKS_ON.all.keepWords(db, actor, { file, page, before, after: correctedPage(first, lines) });
}
