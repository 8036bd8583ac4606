import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import {
  editFolder,
  editSearch,
  keepSearch,
  makeFolder,
  removeFolder,
  removeSearch,
  savedCounts,
  savedList,
} from './service.ts';

export function savedRoutes(declare: Declare, services: Services): void {
  const { saved } = routes;
  declare(saved.list, (call) => savedList(services, call));
  declare(saved.counts, (call) => savedCounts(services, call));
  declare(saved.keep, (call) => keepSearch(services, call, call.body));
  declare(saved.edit, (call) => editSearch(services, call, call.params.saved, call.body));
  declare(saved.remove, (call) => removeSearch(services, call, call.params.saved));
  declare(saved.makeFolder, (call) => makeFolder(services, call, call.body));
  declare(saved.editFolder, (call) => editFolder(services, call, call.params.folder, call.body));
  declare(saved.removeFolder, (call) => removeFolder(services, call, call.params.folder));
}
