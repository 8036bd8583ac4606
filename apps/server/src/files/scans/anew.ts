/** A scan recognised anew: in other languages, or because the recognition is better by now. */
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Changed, RecogniseAnew } from '@pandecta/contract';
import { counted } from '@pandecta/core/wording';
import type { Acting } from '../../access/principal.ts';
import { defineJob } from '../../capability.ts';
import { commitWithin } from '../../changes/commit.ts';
import { transact, type Db } from '../../database/connect.ts';
import { number, one, rows } from '../../database/read.ts';
import { array } from '../../database/sql.ts';
import { within } from '../../database/within.ts';
import { Refusal } from '../../errors.ts';
import type { Job, Progress } from '../../queue/kind.ts';
import { doOnce } from '../../queue/once.ts';
import { workspaceOf } from '../../records/workspace.ts';
import type { Services } from '../../services.ts';
import { attached } from '../of-source.ts';
import { findFileOf } from '../store.ts';
import { corrections, pages, pagesAsRead } from '../tables.ts';
import { languagesFor, refuseUninstalled } from './languages.ts';
import { asSentences, MOST_SCANNED_PAGES, recogniseScan } from './read.ts';

interface Anew {
  source: string;
  file: string;
  languages: string[];
  /** Whether pages with corrected lines stay as they are. */
  keepsCorrected: boolean;
}

/** Pages of a file on which lines were corrected. */
async function correctedPages(db: Db, workspaceId: string, file: string): Promise<number[]> {
  const found = await rows(
    db,
    { page: number },
    sql`select distinct page from corrections where workspace_id = ${workspaceId} and file_id = ${file} order by page`,
  );
  return found.map((f) => f.page);
}

/** Of a file whose words were recognised, on how many of its pages lines were corrected; undefined of any other. */
export async function correctedOf(db: Db, workspaceId: string, file: string): Promise<number | undefined> {
  const of = sql`where workspace_id = ${workspaceId} and file_id = ${file}`;
  const found = await one(
    db,
    { pages: number },
    sql`select count(distinct page)::int as pages from corrections ${of}
      having exists (select 1 from pages ${of} and confidence is not null)`,
  );
  return found?.pages;
}

/** @throws Refusal where the file was not recognised, or lines were corrected and nobody said what is to become of them */
export async function recogniseAnew(
  services: Services,
  { actor }: Acting,
  source: string,
  id: string,
  { languages, corrected }: RecogniseAnew,
): Promise<Changed> {
  const { db, jobs: queue } = services;
  const file = await findFileOf(db, actor, source, id);
  const of = await correctedOf(db, actor.workspaceId, id);
  if (of === undefined && file.state !== 'image only')
    throw new Refusal('invalid', 'the words of this file were not recognised: it had them when it came');
  if (file.pages > MOST_SCANNED_PAGES)
    throw new Refusal('invalid', `text is recognised of at most ${MOST_SCANNED_PAGES} pages`);
  if (languages) await refuseUninstalled(languages);
  if (of && !corrected)
    throw new Refusal('invalid', `lines of ${counted(of, 'page')} were corrected: say whether they stay as they are`);
  const input: Anew = {
    source,
    file: id,
    languages: languages ?? (await languagesFor(db, actor.workspaceId, source)),
    keepsCorrected: corrected !== 'anew',
  };
  const title = `Recognising the text of ${file.name} anew`;
  const jobId = await queue.queue(recogniseAnewJob, actor, title, input);
  return { changeId: null, says: title, jobId };
}

async function work(
  services: Services,
  { workspaceId, jobId, userId, input }: Job<Anew>,
  progress: Progress,
): Promise<string> {
  const { db, storage, followers } = services;
  const actor = { workspaceId, userId };
  const file = await findFileOf(db, actor, input.source, input.file);
  const keep = input.keepsCorrected ? await correctedPages(db, workspaceId, file.id) : [];
  const scan = { name: file.name, path: storage.path(file.sha256), pages: file.pages };
  const read = await recogniseScan(services, await workspaceOf(db, workspaceId), scan, {
    languages: input.languages,
    keep: new Set(keep),
    says: asSentences(progress),
  });
  if (!read) return `No text was recognised in ${file.name}; it stays as it was`;
  await keepPages(db, workspaceId, file.id, read.fileId, keep);
  const { says } = await doOnce(db, { workspaceId, jobId }, async (tx) => {
    // What was said of its pages holds for the same pages.
    await tx.execute(sql`update files n set numbered_by_hand = o.numbered_by_hand, taken_from = o.taken_from from files o
      where n.workspace_id = ${workspaceId} and n.id = ${read.fileId} and o.workspace_id = n.workspace_id and o.id = ${file.id}`);
    const came = { source: input.source, name: file.name, instead: file.id };
    const change = await attached(tx, services, actor, came, [read.fileId]);
    const sentence = `Recognised the text of ${file.name} anew${keep.length ? `; ${counted(keep.length, 'page')} with corrected lines stayed` : ''}`;
    const committed = await commitWithin(tx, actor, change.do === 'all' ? { ...change, says: sentence } : change);
    return { changeId: committed.changeId, says: sentence };
  });
  followers.kick();
  return says;
}

/** Copies the words, lines and corrections of pages to another file that has the same pictures. */
async function keepPages(db: Db, workspaceId: string, from: string, to: string, kept: number[]): Promise<void> {
  if (!kept.length) return;
  await transact(db, async (tx) => {
    const here = within(tx, workspaceId);
    await here.delete(pages, and(eq(pages.fileId, to), inArray(pages.number, kept)));
    await here.delete(corrections, and(eq(corrections.fileId, to), inArray(corrections.page, kept)));
    await here.delete(pagesAsRead, and(eq(pagesAsRead.fileId, to), inArray(pagesAsRead.number, kept)));
    const of = sql`where workspace_id = ${workspaceId} and file_id = ${from}`;
    const these = array(kept, 'int');
    await tx.execute(sql`insert into pages (workspace_id, file_id, number, width, height, text, words, confidence)
      select workspace_id, ${to}::uuid, number, width, height, text, words, confidence from pages ${of} and number = any(${these})`);
    await tx.execute(sql`insert into pages_as_read (workspace_id, file_id, number, text, words)
      select workspace_id, ${to}::uuid, number, text, words from pages_as_read ${of} and number = any(${these})`);
    await tx.execute(sql`insert into corrections (workspace_id, file_id, page, line, text)
      select workspace_id, ${to}::uuid, page, line, text from corrections ${of} and page = any(${these})`);
    await tx.execute(sql`update documents d set vector = o.vector from documents o
      where d.workspace_id = ${workspaceId} and d.kind = 'page' and d.id = ${to} and d.part = any(${these})
        and o.workspace_id = d.workspace_id and o.kind = 'page' and o.id = ${from} and o.part = d.part`);
  });
}

export const recogniseAnewJob = defineJob<Anew>({
  kind: 'recognise-anew',
  nothing: 'its text stays as it was',
  failed: 'The text could not be recognised; it stays as it was. Try it again.',
  work,
});
