/** Pages as one reads them: paragraphs in their order, each from its page. */
import { and, between, eq } from 'drizzle-orm';
import type { PagesAsked, PlainPage } from '@pandecta/contract';
import { citedPage } from '@pandecta/core/page-numbers';
import { within } from '../database/within.ts';
import type { Services } from '../services.ts';
import { numbersOf } from './numbers.ts';
import { pages } from './tables.ts';

/** What stands at the head and foot of a page is known by so many pages before and after it. */
const NEIGHBOURS = 3;

export async function plainPages(
  { db, workers }: Services,
  workspaceId: string,
  here: { sourceId: string; fileId: string },
  { from, count }: PagesAsked,
): Promise<PlainPage[]> {
  const { number, text, words, height } = pages;
  const last = from + count - 1;
  const around = between(number, from - NEIGHBOURS, last + NEIGHBOURS);
  const found = await within(db, workspaceId).all(
    pages,
    { number, text, words, height },
    and(eq(pages.fileId, here.fileId), around),
    { by: [number] },
  );
  const numbers = (await numbersOf(db, workspaceId, [here]))(here);
  const read = await workers.run('paragraphs', found);
  return read
    .filter(({ page }) => page >= from && page <= last)
    .map((page) => ({ ...page, cited: citedPage(numbers, page.page) }));
}
