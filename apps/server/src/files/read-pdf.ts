/** Reads a PDF into the database: its pages with the place of every word, and what it says of itself. */
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { packWords, type Embedded, type Page } from '@pandecta/core/documents';
import type { FileState } from '@pandecta/contract';
import { Lexemes } from '@pandecta/core/words';
import { one, type Db } from '../database/connect.ts';
import { array } from '../database/sql.ts';
import { prefixOf } from '../indexing/vector.ts';
import { pdfInfo, pdfPages, type PdfInfo } from '@pandecta/debian/poppler';

const PAGES_AT_ONCE = 40;
/** In bytes: a larger one would not fit beside what else a worker holds. */
const LARGEST_REBUILT = 100 * 1024 ** 2;

/** Writes a damaged PDF anew from what is whole of it; nothing when that cannot be done. */
export type Rebuild = (bytes: Uint8Array) => Promise<Uint8Array | undefined>;

export interface ReadPdf {
  fileId: string;
  state: FileState;
  pages: number;
  /** How many of them could not be read. */
  unread: number;
  /** Whether its end is missing, and what is whole was put together anew. */
  rebuilt: boolean;
  /** The first pages, for recognising the work. */
  front: Page[];
  embedded: Embedded;
}

/**
 * The file and its pages are written at once: they are nothing anyone sees until a source takes the file. A file
 * read before is read anew only if its reading did not end.
 *
 * @param onPage told after each share of pages; may throw to stop.
 * @param rebuild asked where poppler cannot open the file
 */
export async function readPdf(
  db: Db,
  workspace: { id: string; number: number },
  input: { name: string; sha256: string; bytes: number; path: string },
  onPage: (done: number, total: number) => Promise<void>,
  rebuild: Rebuild,
): Promise<ReadPdf> {
  const info = await pdfInfo(input.path);
  if (info.state !== 'damaged') return readSound(db, workspace, input, info, onPage);
  const folder = await mkdtemp(join(tmpdir(), 'pandecta-rebuilt-'));
  try {
    const whole = input.bytes <= LARGEST_REBUILT ? await rebuild(await readFile(input.path)) : undefined;
    if (!whole) return await readSound(db, workspace, input, info, onPage);
    const path = join(folder, 'rebuilt.pdf');
    await writeFile(path, whole);
    const read = await readSound(db, workspace, { ...input, path }, await pdfInfo(path), onPage);
    return { ...read, rebuilt: read.state !== 'damaged' };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function readSound(
  db: Db,
  workspace: { id: string; number: number },
  input: { name: string; sha256: string; bytes: number; path: string },
  info: PdfInfo,
  onPage: (done: number, total: number) => Promise<void>,
): Promise<ReadPdf> {
  const fileId = await ensureFile(db, workspace.id, { ...input, mediaType: 'application/pdf' });
  if (info.state !== 'sound') {
    await finish(db, workspace.id, fileId, info.state, 0);
    return { fileId, state: info.state, pages: 0, unread: 0, rebuilt: false, front: [], embedded: {} };
  }
  await db.execute(sql`delete from pages where workspace_id = ${workspace.id} and file_id = ${fileId}`);
  await db.execute(sql`delete from page_text where workspace_id = ${workspace.id} and file_id = ${fileId}`);
  const front: Page[] = [];
  let letters = 0;
  let count = 0;
  let waiting: Page[] = [];
  // One share is written while the next is read.
  let writing: Promise<void> = Promise.resolve();
  const flush = async (): Promise<void> => {
    await writing;
    const share = waiting;
    if (!share.length) return;
    waiting = [];
    count += share.length;
    writing = writePages(db, workspace, fileId, share);
    // Its failure is met at the next await, not as an unhandled one.
    writing.catch(() => {});
    await onPage(count, info.pages);
  };
  for await (const page of pdfPages(input.path)) {
    if (front.length < 3) front.push(page);
    letters += page.text.length;
    waiting.push(page);
    if (waiting.length >= PAGES_AT_ONCE) await flush();
  }
  await flush();
  await writing;
  const state: FileState = count === 0 ? 'damaged' : letters < 20 * Math.min(count, 5) ? 'image only' : 'text';
  await finish(db, workspace.id, fileId, state, Math.max(count, info.pages));
  const pages = Math.max(count, info.pages);
  return { fileId, state, pages, unread: pages - count, rebuilt: false, front, embedded: info.embedded };
}

export async function ensureFile(
  db: Db,
  workspaceId: string,
  file: { name: string; sha256: string; bytes: number; mediaType: string },
): Promise<string> {
  const found = await one<{ id: string }>(
    db,
    sql`
    insert into files (workspace_id, id, sha256, name, bytes, media_type, state)
    values (${workspaceId}, ${uuidv7()}, ${file.sha256}, ${file.name}, ${file.bytes}, ${file.mediaType}, 'waiting')
    on conflict (workspace_id, sha256) do update set sha256 = excluded.sha256 returning id`,
  );
  return found!.id;
}

async function finish(db: Db, workspaceId: string, fileId: string, state: FileState, pages: number): Promise<void> {
  await db.execute(
    sql`update files set state = ${state}, pages = ${pages} where workspace_id = ${workspaceId} and id = ${fileId}`,
  );
}

async function writePages(
  db: Db,
  workspace: { id: string; number: number },
  fileId: string,
  pages: Page[],
): Promise<void> {
  const lead = prefixOf(workspace.number);
  const vectors = pages.map((p) => {
    const words = new Lexemes();
    words.add(lead, p.text);
    return words.toString();
  });
  const numbers = array(
    pages.map((p) => p.number),
    'int',
  );
  const texts = pages.map((p) => p.text.replace(/\u0000/g, ''));
  await db.execute(sql`insert into pages (workspace_id, file_id, number, width, height, text, words)
    select ${workspace.id}::uuid, ${fileId}::uuid, u.n, u.w, u.h, u.t, decode(u.b, 'base64')
    from unnest(${numbers}, ${sql.param(pages.map((p) => p.width))}::real[], ${sql.param(pages.map((p) => p.height))}::real[], ${array(texts, 'text')},
      ${array(
        pages.map((p) => Buffer.from(packWords(p.words)).toString('base64')),
        'text',
      )}) as u(n, w, h, t, b)`);
  await db.execute(sql`insert into page_text (workspace_id, file_id, number, vector)
    select ${workspace.id}::uuid, ${fileId}::uuid, u.n, u.v::tsvector from unnest(${numbers}, ${array(vectors, 'text')}) as u(n, v)`);
}
