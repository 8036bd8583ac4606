/**
 * What is searched by itself besides the records of sources, each kind declared by the capability it belongs to. Its words find
 * the source it is on too, and the lines of an answer show where in it they stand.
 */
import type { SQL } from 'drizzle-orm';
import type { CitedPages } from '@pandecta/core/page-numbers';
import type { Db } from '../database/connect.ts';
import { Registry } from '../registry.ts';
import type { Chosen } from './facet.ts';

/** What a document is. */
export type DocumentName = 'page' | 'mark' | 'gloss' | 'note';

export interface DocumentKind {
  /**
   * Selects (source, id, audience, text) of what members wrote on the chosen sources; the audience is the member who alone finds
   * it, null where all do. Missing for pages: their words are read with the file.
   */
  written?(of: Chosen): SQL;
  /**
   * Selects (called, file_id, page, text) of the document `of`, a row of `documents`: what a hit in it says before the number of
   * the page, and opens.
   */
  shown(workspace: SQL, of: SQL): SQL;
}

/** One for each kind: a kind without its declaration does not compile. */
export type DocumentKinds = { [K in DocumentName]: DocumentKind };
/** The kinds that one capability declares. */
export type DocumentsOf<K extends DocumentName> = Pick<DocumentKinds, K>;

/** The numbers by which pages are cited: of each file, as its source has it. The capability of files says them. */
export const PAGE_NUMBERS = new Registry<
  (
    db: Db,
    workspaceId: string,
    of: readonly { sourceId: string; fileId: string }[],
  ) => Promise<(of: { sourceId: string; fileId: string }) => CitedPages>
>('page numbers');

export const DOCUMENTS = new Registry<DocumentKinds>('documents');
