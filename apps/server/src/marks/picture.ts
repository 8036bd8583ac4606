/** What a region shows: cut out of its page as it is drawn. */
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import { drawRegion } from '@pandecta/debian/poppler';
import type { Rect } from '@pandecta/core/marks';
import type { Actor } from '../access/principal.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { files } from '../files/tables.ts';
import type { Services } from '../services.ts';
import { findMark } from './store.ts';

/** Dots an inch: figures are read in it, and a page of them takes a tenth of a second. */
const RESOLUTION = 150;

/** What the picture is of; another of any of it is another picture. */
export interface Pictured {
  sha256: string;
  page: number;
  rect: Rect;
}

/** @throws Refusal where the mark has no place on a page that can be drawn */
export async function picturedBy({ db }: Services, viewer: Actor, id: string): Promise<Pictured> {
  const { now } = await findMark(db, viewer, id);
  const { file, page, rects, unplaced } = now.place;
  const of = await within(db, viewer.workspaceId).first(files, { sha256: files.sha256, mediaType: files.mediaType, state: files.state }, eq(files.id, file)); // prettier-ignore
  const isDrawn = of?.mediaType === 'application/pdf' && (of.state === 'text' || of.state === 'image only');
  if (!isDrawn || unplaced || !rects[0] || now.shape !== 'region') throw new Refusal('no_such_picture');
  return { sha256: of.sha256, page, rect: rects[0] };
}

/** As a PNG. */
export async function drawn({ storage }: Services, { sha256, page, rect }: Pictured): Promise<Buffer> {
  const folder = await mkdtemp(join(tmpdir(), 'pandecta-region-'));
  try {
    const path = await drawRegion(storage.path(sha256), page, rect, join(folder, 'region'), RESOLUTION);
    return await readFile(path);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
