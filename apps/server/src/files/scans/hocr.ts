/** The text of a document, as it reads now, in an open format that other programs read. */
import { and, eq } from 'drizzle-orm';
import { within } from '../../database/within.ts';
import { Refusal } from '../../errors.ts';
import { sources } from '../../records/tables.ts';
import type { Services } from '../../services.ts';
import { pages } from '../tables.ts';

/** So many are put together at once: their words are held in memory. */
const MOST_PAGES = 2000;

export async function hocrOf(
  { db, workers }: Services,
  workspaceId: string,
  source: string,
  file: { id: string; name: string; pages: number },
): Promise<string> {
  if (file.pages > MOST_PAGES) throw new Refusal('invalid', `at most ${MOST_PAGES} pages are written to one file`);
  const here = within(db, workspaceId);
  const { number, width, height, text, words, confidence } = pages;
  const found = await here.all(pages, { number, width, height, text, words, confidence }, and(eq(pages.fileId, file.id)), { by: [number] }); // prettier-ignore
  if (!found.length) throw new Refusal('invalid', 'the document has no text');
  const of = await here.first(sources, { record: sources.record }, eq(sources.id, source));
  return workers.run('hocr', { pages: found, title: file.name, language: of?.record.language });
}
