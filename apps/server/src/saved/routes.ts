import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { askedLog, noteAsked, setLog } from './asked.ts';
import { editFolder, makeFolder, removeFolder } from './folders.ts';
import { altogether, editSearch, keepSearch, removeSearch, savedCounts, savedList } from './service.ts';
import { seeSearch, watchSearch } from './watching.ts';

export function savedRoutes(declare: Declare, services: Services): void {
  const { saved } = routes;
  declare(saved.list, (call) => savedList(services, call));
  declare(saved.counts, (call) => savedCounts(services, call));
  declare(saved.keep, (call) => keepSearch(services, call, call.body));
  declare(saved.edit, (call) => editSearch(services, call, call.params.saved, call.body));
  declare(saved.remove, (call) => removeSearch(services, call, call.params.saved));
  declare(saved.asked, ({ actor }) => askedLog(services.db, actor));
  declare(saved.log, async ({ actor, body }) => {
    await setLog(services.db, actor, body.logs);
    return askedLog(services.db, actor);
  });
  declare(saved.note, async ({ actor, body }) => {
    await noteAsked(services.db, actor, body);
    return askedLog(services.db, actor);
  });
  declare(saved.many, (call) => altogether(services, call, call.body));
  declare(saved.watch, async (call) => {
    await watchSearch(services, call, call.params.saved, call.body);
    return savedList(services, call);
  });
  declare(saved.see, async (call) => {
    await seeSearch(services, call, call.params.saved);
    return savedList(services, call);
  });
  declare(saved.makeFolder, (call) => makeFolder(services, call, call.body));
  declare(saved.editFolder, (call) => editFolder(services, call, call.params.folder, call.body));
  declare(saved.removeFolder, (call) => removeFolder(services, call, call.params.folder));
}
