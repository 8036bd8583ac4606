/** The numbers by which pages of files are cited. */
import { eq, sql } from 'drizzle-orm';
import type { Changed, NumberPage } from '@pandecta/contract';
import { citedPages, NO_NUMBERING, runFrom, runOf, type CitedPages, type NumberRun } from '@pandecta/core/page-numbers';
import type { Acting } from '../access/principal.ts';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import type { Db } from '../database/connect.ts';
import { json, number, orNull, rows, text, truth } from '../database/read.ts';
import { table } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import type { Services } from '../services.ts';
import { NOTHING_INSIDE } from './read-pdf.ts';
import { findFileOf } from './store.ts';
import { files, type ReadNumbering } from './tables.ts';

interface InSource {
  sourceId: string;
  fileId: string;
}

const keyOf = ({ sourceId, fileId }: InSource): string => `${sourceId} ${fileId}`;

/** Of files as sources have them: by a source's record its files' pages may be cited. */
export async function numbersOf(
  db: Db,
  workspaceId: string,
  of: readonly InSource[],
): Promise<(one: InSource) => CitedPages> {
  if (!of.length) return () => citedPages(NO_NUMBERING, undefined, 0);
  const asked = [...new Map(of.map((one) => [keyOf(one), one])).values()];
  const pairs = table('u', {
    source: ['uuid', asked.map((a) => a.sourceId)],
    file: ['uuid', asked.map((a) => a.fileId)],
  });
  const found = await rows(
    db,
    {
      sourceId: text(),
      fileId: text(),
      pages: number,
      read: orNull(json<ReadNumbering>()),
      byHand: orNull(json<NumberRun[]>()),
      record: orNull(text()),
      isJudgment: truth,
    },
    sql`select u.source as "sourceId", u.file as "fileId", f.pages, f.numbering as read, f.numbered_by_hand as "byHand", s.record->>'page' as record, coalesce(s.record->>'type' = 'legal_case', false) as "isJudgment"
      from ${pairs} join files f on f.workspace_id = ${workspaceId} and f.id = u.file
      left join sources s on s.workspace_id = ${workspaceId} and s.id = u.source`,
  );
  const known = new Map(
    found.map(({ pages, read, byHand, record, isJudgment, ...one }) => {
      const { paragraphs, ...runs } = { ...NO_NUMBERING, ...read, byHand: byHand ?? [] };
      const cited = citedPages(runs, record ?? undefined, pages);
      return [keyOf(one), isJudgment && paragraphs?.length ? { ...cited, paragraphs } : cited];
    }),
  );
  return (one) => known.get(keyOf(one)) ?? citedPages(NO_NUMBERING, undefined, 0);
}

/** What a file says of its numbers and annotations, where nobody looked yet: those that were read before they were looked for. */
export async function readInside(
  { db, workers, storage }: Pick<Services, 'db' | 'workers' | 'storage'>,
  workspaceId: string,
  fileId: string,
): Promise<void> {
  const here = within(db, workspaceId);
  const { sha256, mediaType, numbering, annotations } = files;
  const file = await here.first(files, { sha256, mediaType, numbering, annotations }, eq(files.id, fileId));
  if (!file || (file.numbering?.paragraphs && file.annotations) || file.mediaType !== 'application/pdf') return;
  const path = storage.path(file.sha256);
  const [inside, numbers] = await Promise.all([
    workers.run('pdfInside', path).catch(() => NOTHING_INSIDE),
    workers.run('numbersInText', path).catch(() => ({ printed: [], paragraphs: [] })),
  ]);
  const read = {
    numbering: { labels: inside.labels, ...numbers },
    annotations: file.annotations ?? inside.annotations,
  };
  await here.update(files, read, eq(files.id, fileId));
}

/** @throws Refusal where what was written is no number */
export async function numberPage(
  services: Services,
  { actor }: Acting,
  source: string,
  fileId: string,
  { page, number: written }: NumberPage,
): Promise<Changed> {
  const file = await findFileOf(services.db, actor, source, fileId);
  if (page > file.pages) throw new Refusal('invalid', `the file has no page ${page}`);
  const before = file.numberedByHand;
  const run = written === undefined ? undefined : runFrom(page, written);
  if (written !== undefined && !run)
    throw new Refusal('invalid', `“${written}” is no page number: write “12”, “xii” or “A-3”`);
  const runs = before ?? [];
  // Without a number, the run goes by which the page was counted.
  const left = run ? runs.filter((r) => r.page !== page) : runs.filter((r) => r !== (runOf(runs, page) ?? runs[0]));
  const after = [...left, ...(run ? [run] : [])].sort((a, b) => a.page - b.page);
  return answer(
    await commit(services, actor, {
      do: 'file-edit',
      source,
      file: fileId,
      called: file.name,
      fields: { numbering: { before, after: after.length ? after : null } },
    }),
  );
}
