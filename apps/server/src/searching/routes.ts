/** Asking: a stretch of what matches, its ids alone, facets. */
import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import { hasUnread } from '../indexing/indexer.ts';
import type { Services } from '../services.ts';
import { namedGroups } from './groups.ts';
import { understand } from './match.ts';
import { ledgerRows } from './rows.ts';
import { overview } from './overview.ts';
import { suggest } from './suggest.ts';
import { allOfFacet, narrow } from './narrow.ts';
import { among, idsIn, page, placesIn } from './store.ts';
import { whyNothing } from './why.ts';

const FIRST_PAGE = 50;

export function searchRoutes(declare: Declare, services: Services): void {
  const { db } = services;
  declare(routes.search.page, async (call) => {
    const { from = 0, count = FIRST_PAGE, find, abstracts } = call.query;
    const q = await understand(db, call, call.query);
    // Looked at before the search: words that come in meanwhile are the next answer's.
    const settling = q.compiled.sets.length > 0 && (await hasUnread(db, call.workspace.id));
    const { total, ids, at, groups } = await page(services, q, { from, count, ...(find && { find }) });
    const rows = await ledgerRows(db, q, ids, abstracts);
    if (groups) {
      const named = await namedGroups(db, q, groups);
      for (const row of rows) row.group = named[ids.indexOf(row.id)]!;
    }
    const why = total || from ? undefined : await whyNothing(services, call, call.query);
    return {
      total,
      from,
      rows,
      notes: q.notes,
      settling,
      ...(at !== undefined && { at }),
      ...(why?.length && { why }),
    };
  });
  declare(routes.search.ids, async (call) => {
    const { from, count } = call.query;
    return { ids: await idsIn(services, await understand(db, call, call.query), from, count) };
  });
  declare(routes.search.among, async (call) => {
    const { ids, ...asked } = call.body;
    return { ids: await among(services, await understand(db, call, asked), ids) };
  });
  declare(routes.search.places, async (call) => {
    const { ids, ...asked } = call.body;
    return { places: await placesIn(services, await understand(db, call, asked), ids) };
  });
  declare(routes.search.suggest, (call) => suggest(services, call, call.query.field, call.query.begins ?? ''));
  declare(routes.search.overview, async (call) =>
    overview(services, await understand(db, call, call.query), call.query),
  );
  declare(routes.search.narrow, (call) => narrow(services, call, call.query));
  declare(routes.search.facet, (call) => allOfFacet(services, call, call.query));
}
