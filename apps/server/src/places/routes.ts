/** Places: the tree of collections and filing. */
import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import { chosenIds } from '../searching/chosen.ts';
import type { Services } from '../services.ts';
import { fileSources, makeCollection, placeCollection, removePlacement, renameCollection } from './service.ts';
import { findPlaces } from './store.ts';

export function placeRoutes(declare: Declare, services: Services): void {
  declare(routes.places.places, ({ workspace }) => findPlaces(services, workspace.id));
  declare(routes.places.make, (call) => makeCollection(services, call.actor, call.body.name, call.body.parent ?? null));
  declare(routes.places.rename, (call) =>
    renameCollection(services, call.actor, call.params.collection, call.body.name, call.body.seen),
  );
  declare(routes.places.place, (call) =>
    placeCollection(services, call.actor, { ...call.body, parent: call.body.parent ?? null }),
  );
  declare(routes.places.unplace, (call) => removePlacement(services, call.actor, call.params.placement));
  declare(routes.places.file, async (call) => {
    const { collection, present } = call.body;
    return fileSources(services, call.actor, await chosenIds(services, call, call.body), collection, present);
  });
}
