/** Keeps a page of the web beside its source: cleaned, with its pictures in it, its words found with all others. */
import { Readable } from 'node:stream';
import pMap from 'p-map';
import { packWords } from '@pandecta/core/documents';
import { withPictures } from '@pandecta/core/pages';
import { cut, withoutNul } from '@pandecta/core/text';
import { formatDate } from '@pandecta/core/wording';
import { prefixOf } from '../database/lexemes.ts';
import type { Services } from '../services.ts';
import { ensureFile, finish, forgetPages, writePages } from './read-pdf.ts';

export const SNAPSHOT_TYPE = 'text/html; charset=utf-8';
/** In bytes: of one picture, and of all of a page. */
const MOST_PICTURE = 2 * 1024 ** 2;
const MOST_IN_ALL = 10 * 1024 ** 2;
const PATIENCE_MS = 6000;
const MOST_TEXT = 2_000_000;

/** @returns the file it is kept as; nothing where there is nothing to keep */
export async function keepPage(
  { db, workers, fetcher, storage }: Services,
  workspace: { id: string; number: number },
  page: { html: string; address: string; name: string },
): Promise<string | undefined> {
  const from = `Seen at ${page.address}, ${formatDate(Date.now())}`;
  const kept = await workers.run('keepPage', { ...page, from, lead: prefixOf(workspace.number) });
  if (!kept?.text) return undefined;
  const data = new Map<number, string>();
  let inAll = 0;
  await pMap(
    kept.pictures,
    async (address, at) => {
      const reply = await fetcher
        .get(address, { accept: 'image/*', most: MOST_PICTURE, withinMs: PATIENCE_MS })
        .catch(() => undefined);
      const type = /^image\/(?:png|jpeg|gif|webp|avif)/.exec(reply?.type ?? '')?.[0];
      if (!reply || reply.status !== 200 || !type || inAll + reply.bytes.length > MOST_IN_ALL) return;
      inAll += reply.bytes.length;
      data.set(at, `data:${type};base64,${reply.bytes.toString('base64')}`);
    },
    { concurrency: 4 },
  );
  return store({ db, storage }, workspace, page.name, { ...kept, html: withPictures(kept.html, data) });
}

/**
 * A document that is no PDF (DOCX, ODT, HTML, plain text), as a page that is read and marked like those of the web.
 * @returns the file it is kept as; nothing of what is no text
 */
export async function keepReadable(
  { db, workers, storage }: Services,
  workspace: { id: string; number: number },
  file: { path: string; name: string },
): Promise<string | undefined> {
  const from = `Made from ${file.name}, ${formatDate(Date.now())}`;
  const kept = await workers.run('keepReadable', { path: file.path, from, lead: prefixOf(workspace.number) });
  if (!kept?.text) return undefined;
  const name = `${file.name.replace(/\.\w{1,5}$/, '')} (for reading).html`;
  // Its pictures are not fetched from outside.
  return store({ db, storage }, workspace, name, { ...kept, html: withPictures(kept.html, new Map()) });
}

async function store(
  { db, storage }: Pick<Services, 'db' | 'storage'>,
  workspace: { id: string },
  name: string,
  kept: { html: string; text: string; vector: string },
): Promise<string> {
  const stored = await storage.put(Readable.from([Buffer.from(kept.html)]));
  const fileId = await ensureFile(db, workspace.id, { ...stored, name, mediaType: SNAPSHOT_TYPE });
  await forgetPages(db, workspace.id, fileId);
  const text = cut(withoutNul(kept.text), MOST_TEXT);
  await writePages(db, workspace.id, fileId, [
    { number: 1, width: 0, height: 0, text, words: packWords([]), vector: kept.vector },
  ]);
  await finish(db, workspace.id, fileId, 'text', 1);
  return fileId;
}
