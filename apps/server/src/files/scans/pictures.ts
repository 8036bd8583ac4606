/** Several pictures as the pages of one document: in the order, turned and cut as one says. */
import type { FastifyRequest } from 'fastify';
import { PagesOfPictures, type Changed, type PageOfPictures } from '@pandecta/contract';
import { pictureType } from '@pandecta/core/formats';
import { cut } from '@pandecta/core/text';
import { counted } from '@pandecta/core/wording';
import type { Acting } from '../../access/principal.ts';
import { defineJob } from '../../capability.ts';
import { commitWithin } from '../../changes/commit.ts';
import { Refusal } from '../../errors.ts';
import { check } from '../../http/check.ts';
import { arriving } from '../../http/parts.ts';
import type { Job, Progress } from '../../queue/kind.ts';
import { doOnce } from '../../queue/once.ts';
import { workspaceOf } from '../../records/workspace.ts';
import type { Services } from '../../services.ts';
import { startOf } from '../../storage/storage.ts';
import { renamed } from '../names.ts';
import { attached, mainOf } from '../of-source.ts';
import { languagesFor } from './languages.ts';
import { asSentences, MOST_SCANNED_PAGES, pagesOfPicture, recognisePictures, type PagePicture } from './read.ts';

interface Pictures {
  source: string;
  name: string;
  /** Their contents, and how they were called. */
  pictures: { sha256: string; name: string }[];
  pages: PageOfPictures[];
}

/** @throws Refusal where one is no picture, or the pages speak of one that did not come */
export async function addPictures(
  services: Services,
  { actor }: Acting,
  source: string,
  request: FastifyRequest,
): Promise<Changed> {
  const { db, storage, jobs: queue } = services;
  await mainOf(db, actor, source);
  let name = '';
  let said: string | undefined;
  const pictures: Pictures['pictures'] = [];
  for await (const part of arriving(request, storage)) {
    if ('field' in part) {
      if (part.field === 'name') name = cut(part.value.trim(), 200);
      if (part.field === 'pages') said = part.value;
      continue;
    }
    const called = cut(part.path.split(/[/\\]/).at(-1) || 'picture', 200);
    if (!pictureType(await startOf(storage.path(part.file.sha256))))
      throw new Refusal('invalid', `${called} is no picture`);
    pictures.push({ sha256: part.file.sha256, name: called });
  }
  if (!pictures.length) throw new Refusal('no_files');
  const pages = said === undefined ? pictures.map((_, picture) => ({ picture })) : (await readPages(said)).pages;
  const beyond = pages.find((p) => p.picture >= pictures.length);
  if (beyond)
    throw new Refusal('invalid', `there is no picture ${beyond.picture + 1} among the ${pictures.length} that came`);
  const input: Pictures = { source, name: name || pictures[0]!.name, pictures, pages };
  const title = `Making one document of ${counted(pictures.length, 'picture')}`;
  const jobId = await queue.queue(addPicturesJob, actor, title, input);
  return { changeId: null, says: `${title}; it is added when its text has been recognised`, jobId };
}

async function readPages(said: string): Promise<PagesOfPictures> {
  let pages: unknown;
  try {
    pages = JSON.parse(said);
  } catch {
    throw new Refusal('invalid', 'the pages are not JSON');
  }
  return check(PagesOfPictures, pages);
}

async function work(
  services: Services,
  { workspaceId, jobId, userId, input }: Job<Pictures>,
  progress: Progress,
): Promise<string> {
  const { db, storage, followers } = services;
  const pictures: PagePicture[] = [];
  for (const { picture, turn, crop } of input.pages) {
    const { sha256, name } = input.pictures[picture]!;
    const all = await pagesOfPicture(services, storage.path(sha256));
    if (!all.length) return `Nothing was added: ${name} is damaged, or too large`;
    pictures.push(...all.map((page) => ({ ...page, ...(turn !== undefined && { turn }), ...(crop && { crop }) })));
  }
  if (pictures.length > MOST_SCANNED_PAGES)
    return `Nothing was added: text is recognised of at most ${MOST_SCANNED_PAGES} pages, and these are ${pictures.length}`;
  const read = await recognisePictures(services, await workspaceOf(db, workspaceId), input.name, pictures, {
    languages: await languagesFor(db, workspaceId, input.source),
    says: asSentences(progress),
  });
  if (!read) return 'Nothing was added: one of the pictures is damaged, or too large';
  const name = renamed(input.name, '.pdf');
  const { says } = await doOnce(db, { workspaceId, jobId }, async (tx) => {
    const actor = { workspaceId, userId };
    const came = { source: input.source, sha256: '', bytes: 0, name, instead: null };
    const committed = await commitWithin(tx, actor, await attached(tx, services, actor, came, [read.fileId]));
    const sentence = `${committed.says}, of ${counted(pictures.length, 'picture')}`;
    return { changeId: committed.changeId, says: sentence };
  });
  followers.kick();
  return says;
}

export const addPicturesJob = defineJob<Pictures>({
  kind: 'pictures',
  nothing: 'no document was made of the pictures',
  failed: 'No document could be made of the pictures; nothing was added. Choose them again to try once more.',
  work,
});
