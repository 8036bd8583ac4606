/** Reads a PDF into the database: its pages with the place of every word, and what it says of itself. */
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { MessageChannel } from 'node:worker_threads';
import { and, eq, inArray, sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Annotation } from '@pandecta/core/annotations';
import type { Embedded, Page } from '@pandecta/core/documents';
import type { FileState } from '@pandecta/contract';
import type { Db } from '../database/connect.ts';
import { table } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { documents } from '../indexing/tables.ts';
import type { Services } from '../services.ts';
import type { StoredPage } from '../workers/read-pages.ts';
import { prefixOf } from '../database/lexemes.ts';
import { pdfInfo, type PdfInfo } from '@pandecta/debian/poppler';
import { files, pages, type ReadNumbering } from './tables.ts';

/** In bytes: a larger one would not fit beside what else a worker holds. */
const LARGEST_REBUILT = 100 * 1024 ** 2;

/** In these states the pages of a file are kept. */
const READ: FileState[] = ['text', 'image only'];

/** Of a file that cannot be taken apart. */
export const NOTHING_INSIDE = { labels: [], annotations: [] };

export interface ReadPdf {
  fileId: string;
  state: FileState;
  pages: number;
  /** How many of them could not be read. */
  unread: number;
  /** Whether its end is missing, and what is whole was put together anew. */
  rebuilt: boolean;
  /** It was read before: what is kept of its pages, corrected lines among it, stays as it is. */
  wasRead?: boolean;
  /** The first pages, for recognising the work. */
  front: Page[];
  embedded: Embedded;
}

/**
 * The file and its pages are written at once: they are nothing anyone sees until a source takes the file. A file
 * read before is read anew only if its reading did not end.
 *
 * @param onPage told after each share of pages; may throw to stop.
 */
export async function readPdf(
  { db, workers }: Pick<Services, 'db' | 'workers'>,
  workspace: { id: string; number: number },
  input: { name: string; sha256: string; bytes: number; path: string },
  onPage: (done: number, total: number) => Promise<void>,
): Promise<ReadPdf> {
  const reading: Reading = { db, workers, workspace, onPage };
  const info = await pdfInfo(input.path);
  if (info.state !== 'damaged') return readSound(reading, input, info);
  const folder = await mkdtemp(join(tmpdir(), 'pandecta-rebuilt-'));
  try {
    const whole = input.bytes <= LARGEST_REBUILT ? await workers.run('rebuild', await readFile(input.path)) : undefined;
    if (!whole) return await readSound(reading, input, info);
    const path = join(folder, 'rebuilt.pdf');
    await writeFile(path, whole);
    const read = await readSound(reading, { ...input, path }, await pdfInfo(path));
    return { ...read, rebuilt: read.state !== 'damaged' };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

interface Reading {
  db: Db;
  workers: Services['workers'];
  workspace: { id: string; number: number };
  onPage: (done: number, total: number) => Promise<void>;
}

async function readSound(
  { db, workers, workspace, onPage }: Reading,
  input: { name: string; sha256: string; bytes: number; path: string },
  info: PdfInfo,
): Promise<ReadPdf> {
  const fileId = await ensureFile(db, workspace.id, { ...input, mediaType: 'application/pdf' });
  const wasRead = await within(db, workspace.id).has(files, and(eq(files.id, fileId), inArray(files.state, READ)));
  if (info.state !== 'sound') {
    await finish(db, workspace.id, fileId, info.state, 0);
    return { fileId, state: info.state, pages: 0, unread: 0, rebuilt: false, front: [], embedded: {} };
  }
  if (!wasRead) await forgetPages(db, workspace.id, fileId);
  const { port1, port2 } = new MessageChannel();
  const task = { path: input.path, lead: prefixOf(workspace.number), port: port2 };
  const reading = workers.run('readPages', task, [port2]);
  let written = 0;
  let failure: Error | undefined;
  port1.on('message', (share: StoredPage[]) => {
    const take = async (): Promise<void> => {
      if (!wasRead) await writePages(db, workspace.id, fileId, share);
      written += share.length;
      await onPage(written, info.pages);
      port1.postMessage('taken');
    };
    take().catch((error: Error) => {
      failure = error;
      port1.close();
    });
  });
  try {
    const { count, letters, front, printed, paragraphs } = await reading;
    if (failure) throw failure;
    const state: FileState = count === 0 ? 'damaged' : letters < 20 * Math.min(count, 5) ? 'image only' : 'text';
    const all = Math.max(count, info.pages);
    const read = { fileId, state, pages: all, unread: all - count, rebuilt: false, front, embedded: info.embedded };
    if (wasRead) return { ...read, wasRead };
    // One that cannot be taken apart goes without labels and annotations.
    const { labels, annotations } = await workers.run('pdfInside', input.path).catch(() => NOTHING_INSIDE);
    await finish(db, workspace.id, fileId, state, all, { numbering: { labels, printed, paragraphs }, annotations });
    return read;
  } finally {
    port1.close();
  }
}

export async function ensureFile(
  db: Db,
  workspaceId: string,
  file: { name: string; sha256: string; bytes: number; mediaType: string },
): Promise<string> {
  const { sha256, name, bytes, mediaType } = file;
  const [found] = await within(db, workspaceId)
    .insert(files, { id: uuidv7(), sha256, name, bytes, mediaType, state: 'waiting' })
    .onConflictDoUpdate({ target: [files.workspaceId, files.sha256], set: { sha256 } })
    .returning({ id: files.id });
  return found!.id;
}

export async function finish(
  db: Db,
  workspaceId: string,
  fileId: string,
  state: FileState,
  count: number,
  read: { numbering?: ReadNumbering; annotations?: Annotation[] } = {},
): Promise<void> {
  await within(db, workspaceId).update(files, { state, pages: count, ...read }, eq(files.id, fileId));
}

/** What an earlier reading left. */
export async function forgetPages(db: Db, workspaceId: string, fileId: string): Promise<void> {
  const here = within(db, workspaceId);
  await here.delete(pages, eq(pages.fileId, fileId));
  await here.delete(documents, and(eq(documents.kind, 'page'), eq(documents.id, fileId)));
}

export async function writePages(db: Db, workspaceId: string, fileId: string, share: StoredPage[]): Promise<void> {
  const numbers = share.map((p) => p.number);
  const pageColumns = table('u', {
    n: ['int', numbers],
    w: ['real', share.map((p) => p.width)],
    h: ['real', share.map((p) => p.height)],
    t: ['text', share.map((p) => p.text)],
    b: ['text', share.map((p) => Buffer.from(p.words).toString('base64'))],
  });
  await db.execute(sql`insert into pages (workspace_id, file_id, number, width, height, text, words)
    select ${workspaceId}::uuid, ${fileId}::uuid, u.n, u.w, u.h, u.t, decode(u.b, 'base64') from ${pageColumns}`);
  await db.execute(sql`insert into documents (workspace_id, kind, id, part, vector)
    select ${workspaceId}::uuid, 'page', ${fileId}::uuid, u.n, u.v::tsvector
    from ${table('u', { n: ['int', numbers], v: ['text', share.map((p) => p.vector)] })}`);
}
