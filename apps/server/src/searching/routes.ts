/** Asking: the first page, the whole order, rows by their ids, facets. */
import { Ask, AskPage, NarrowReply, RowsRequest, SourcePage } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { understand } from './match.ts';
import { ledgerRows } from './rows.ts';
import { count, first, narrow, order } from './store.ts';

const FIRST_PAGE = 50;

export function searchRoutes(declare: Declare, { db }: Services): void {
  declare({
    method: 'GET',
    path: '/w/:workspace/sources',
    may: 'read',
    summary: 'The first sources that match, with how many there are.',
    query: AskPage,
    reply: SourcePage,
    handler: async ({ workspace, query }) => {
      const q = await understand(db, workspace, query);
      const [total, rows] = await Promise.all([
        count(db, q),
        first(db, q, query.limit ?? FIRST_PAGE).then((ids) => ledgerRows(db, q, ids)),
      ]);
      return { total, rows, notes: q.parsed.notes };
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
      const ids = await order(db, await understand(db, workspace, query));
      return reply.type('application/octet-stream').send(Buffer.from(ids.join('').replaceAll('-', ''), 'hex'));
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
    handler: async ({ workspace, query }) =>
      narrow(db, await understand(db, workspace, query), await understand(db, workspace, query, { years: true })),
  });
}
