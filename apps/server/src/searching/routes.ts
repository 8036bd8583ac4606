/** Asking: the first page, the whole order, rows by their ids, facets. */
import { Ask, AskPage, NarrowReply, RowsRequest, SourcePage } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import { hasUnread } from '../indexing/indexer.ts';
import type { Services } from '../services.ts';
import { understand } from './match.ts';
import { ledgerRows } from './rows.ts';
import { first, narrow, order } from './store.ts';

const FIRST_PAGE = 50;

export function searchRoutes(declare: Declare, services: Services): void {
  const { db } = services;
  declare({
    method: 'GET',
    path: '/w/:workspace/sources',
    may: 'read',
    summary: 'The first sources that match, with how many there are.',
    query: AskPage,
    reply: SourcePage,
    handler: async ({ workspace, query }) => {
      const q = await understand(db, workspace, query);
      // Looked at before the search: words that come in meanwhile are the next answer's.
      const settling = q.compiled.sets.length > 0 && (await hasUnread(db, workspace.id));
      const { total, ids } = await first(services, q, query.limit ?? FIRST_PAGE);
      return { total, rows: await ledgerRows(db, q, ids), notes: q.notes, settling };
    },
  });
  declare({
    method: 'GET',
    path: '/w/:workspace/order',
    may: 'read',
    summary: 'The ids of all sources that match, in order: sixteen bytes each.',
    query: Ask,
    produces: 'application/octet-stream',
    handler: async ({ workspace, query, reply }) => {
      const ids = await order(services, await understand(db, workspace, query));
      return reply.type('application/octet-stream').send(Buffer.from(ids.buffer, ids.byteOffset, ids.byteLength));
    },
  });
  declare({
    method: 'POST',
    path: '/w/:workspace/rows',
    may: 'read',
    summary: 'The lines of the ledger for given sources.',
    body: RowsRequest,
    reply: SourcePage,
    handler: async ({ workspace, body }) => {
      const q = await understand(db, workspace, body);
      return { total: body.ids.length, rows: await ledgerRows(db, q, body.ids), notes: [] };
    },
  });
  declare({
    method: 'GET',
    path: '/w/:workspace/narrow',
    may: 'read',
    summary: 'What the sources that match may be narrowed by, with counts, and their years.',
    query: Ask,
    reply: NarrowReply,
    handler: async ({ workspace, query }) => narrow(services, await understand(db, workspace, query)),
  });
}
