/** Sources: one in full, editing, adding by hand, reading state, bin, and what several share. */
import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import { findFileOf } from '../files/store.ts';
import { chosenIds } from '../searching/chosen.ts';
import type { Services } from '../services.ts';
import { archives } from './archives.ts';
import { alterSources, previewAltering } from './altering.ts';
import { binState, emptyBin, setBinDays } from './bin.ts';
import { sortedPages, sortPage } from './sorting.ts';
import { takenPages, takePages } from './take-pages.ts';
import { addByHand, editRecord, setPresence } from './service.ts';
import { findSource, summarise } from './store.ts';

export function sourceRoutes(declare: Declare, services: Services): void {
  declare(routes.sources.one, ({ actor, params }) => findSource(services.db, actor, params.source));
  declare(routes.sources.edit, (call) =>
    editRecord(services, call.actor, call.params.source, call.body.fields, call.body.seen),
  );
  declare(routes.files.takePages, ({ actor, params, body }) => takePages(services, actor, params, body));
  declare(routes.files.takenPages, ({ actor, params }) => takenPages(services.db, actor, params));
  declare(routes.files.sortedPages, async ({ actor, params: { source, file } }) => {
    await findFileOf(services.db, actor, source, file);
    return { pages: await sortedPages(services.db, actor.workspaceId, file) };
  });
  declare(routes.files.sortPage, (call) => sortPage(services, call, call.params.source, call.params.file, call.body));
  declare(routes.sources.add, ({ actor, body }) => addByHand(services, actor, body.record, body.destination));
  declare(routes.sources.presence, async (call) =>
    setPresence(services, call.actor, await chosenIds(services, call, call.body), call.body.to),
  );
  declare(routes.altering.preview, (call) => previewAltering(services, call, call.body));
  declare(routes.altering.alter, (call) => alterSources(services, call, call.body));
  declare(routes.sources.archives, ({ actor }) => archives(services.db, actor));
  declare(routes.sources.bin, ({ actor }) => binState(services.db, actor));
  declare(routes.sources.emptyBin, ({ actor, body }) => emptyBin(services, actor, body.seen));
  declare(routes.sources.binDays, ({ actor, body }) => setBinDays(services.db, actor, body.days));
  declare(routes.sources.summary, async (call) =>
    summarise(services.db, call.actor, await chosenIds(services, call, call.body)),
  );
}
