import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { addCatalogue, listCatalogues, removeCatalogue, tryCatalogue } from '../catalogues/catalogues.ts';
import { found, gatherFound } from './found.ts';
import { tryListing } from './listings.ts';
import { describe, findSearch, flow, more, searchLog, startSearch } from './search.ts';
import { addWatch, listWatches, pauseWatch, removeWatch, runWatch } from './watches.ts';

export function outsideRoutes(declare: Declare, services: Services): void {
  const { db } = services;
  declare(routes.outside.catalogues, ({ workspace }) => listCatalogues(db, workspace.id));
  declare(routes.outside.addCatalogue, ({ workspace, body }) => addCatalogue(db, workspace.id, body));
  declare(routes.outside.tryCatalogue, ({ body }) => tryCatalogue(services, body));
  declare(routes.outside.removeCatalogue, ({ workspace, params }) =>
    removeCatalogue(db, workspace.id, params.catalogue),
  );
  declare(routes.outside.search, async ({ actor, body }) => {
    const { id, done } = await startSearch(services, actor, body);
    // What is still asked goes on after the answer; each part of it tells of its own trouble.
    void done.catch(() => undefined);
    return findSearch(db, actor.workspaceId, id);
  });
  declare(routes.outside.log, async ({ workspace }) => ({ searches: await searchLog(db, workspace.id) }));
  declare(routes.outside.flow, ({ workspace, body }) => flow(services, workspace.id, body.searches));
  declare(routes.outside.found, ({ actor, params, query }) => found(db, actor, params.search, query));
  declare(routes.outside.more, ({ workspace, params }) => more(services, workspace.id, params.search));
  declare(routes.outside.gather, ({ actor, params, body }) => gatherFound(services, actor, params.search, body));
  declare(routes.outside.describe, ({ workspace, params, body }) =>
    describe(db, workspace.id, params.search, body.why),
  );
  declare(routes.outside.watches, ({ workspace }) => listWatches(db, workspace.id));
  declare(routes.outside.tryListing, ({ body }) => tryListing(services, body.kind, body.address));
  declare(routes.outside.addWatch, ({ actor, body }) => addWatch(services, actor, body));
  declare(routes.outside.pauseWatch, ({ workspace, params, body }) =>
    pauseWatch(db, workspace.id, params.watch, body.paused),
  );
  declare(routes.outside.removeWatch, ({ workspace, params }) => removeWatch(db, workspace.id, params.watch));
  declare(routes.outside.runWatch, ({ workspace, params }) => runWatch(services, workspace.id, params.watch));
}
