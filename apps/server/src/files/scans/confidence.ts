/** How sure the recognition was of each word, kept beside the words of the pages. */
import { eq, sql } from 'drizzle-orm';
import { confidenceOf, unpackWords } from '@pandecta/core/documents';
import type { RecognisedWord } from '@pandecta/debian/tesseract';
import type { Db } from '../../database/connect.ts';
import { table } from '../../database/sql.ts';
import { within } from '../../database/within.ts';
import { pages } from '../tables.ts';

/** @param recognised the words of each page */
export async function keepConfidence(
  db: Db,
  workspaceId: string,
  fileId: string,
  recognised: RecognisedWord[][],
): Promise<void> {
  const { number, text, words } = pages;
  const stored = await within(db, workspaceId).all(pages, { number, text, words }, eq(pages.fileId, fileId));
  const known = stored.map((page) => {
    const said = unpackWords(page.words).map((w) => page.text.slice(w.start, w.end));
    return Buffer.from(confidenceOf(said, recognised[page.number - 1] ?? [])).toString('base64');
  });
  const rows = table('u', { n: ['int', stored.map((p) => p.number)], c: ['text', known] });
  await db.execute(sql`update pages p set confidence = decode(u.c, 'base64') from ${rows}
    where p.workspace_id = ${workspaceId} and p.file_id = ${fileId} and p.number = u.n`);
}
