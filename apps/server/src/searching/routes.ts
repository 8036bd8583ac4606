/** Asking: the first page, the whole order, rows by their ids, facets. */
import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import { hasUnread } from '../indexing/indexer.ts';
import type { Services } from '../services.ts';
import { understand } from './match.ts';
import { ledgerRows } from './rows.ts';
import { first, narrow, order } from './store.ts';

const FIRST_PAGE = 50;

export function searchRoutes(declare: Declare, services: Services): void {
  const { db } = services;
  declare(routes.search.first, async (call) => {
    const q = await understand(db, call, call.query);
    // Looked at before the search: words that come in meanwhile are the next answer's.
    const settling = q.compiled.sets.length > 0 && (await hasUnread(db, call.workspace.id));
    const { total, ids } = await first(services, q, call.query.limit ?? FIRST_PAGE);
    return { total, rows: await ledgerRows(db, q, ids), notes: q.notes, settling };
  });
  declare(routes.search.order, async (call) => {
    const ids = await order(services, await understand(db, call, call.query));
    return call.reply.type('application/octet-stream').send(Buffer.from(ids.buffer, ids.byteOffset, ids.byteLength));
  });
  declare(routes.search.rows, async (call) => {
    const q = await understand(db, call, call.body);
    return { total: call.body.ids.length, rows: await ledgerRows(db, q, call.body.ids), notes: [] };
  });
  declare(routes.search.narrow, async (call) => narrow(services, await understand(db, call, call.query)));
}
