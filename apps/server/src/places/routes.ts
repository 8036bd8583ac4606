/** Places: the tree of collections and filing. */
import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import { chosenIds } from '../searching/chosen.ts';
import type { Services } from '../services.ts';
import { compareCollections, placesOf } from './compare.ts';
import { fileSources } from './filing.ts';
import { editCollection, makeCollection, orderByName, placeCollection, removePlacement } from './service.ts';
import { binCollection, copyCollection, mergeCollections } from './whole.ts';

export function placeRoutes(declare: Declare, services: Services): void {
  declare(routes.places.places, (call) => placesOf(services, call));
  declare(routes.places.make, (call) => makeCollection(services, call.actor, call.body.name, call.body.parent ?? null));
  declare(routes.places.edit, (call) => editCollection(services, call, call.params.collection, call.body));
  declare(routes.places.copy, (call) => copyCollection(services, call.actor, call.params.collection));
  declare(routes.places.merge, (call) =>
    mergeCollections(services, call.actor, call.params.collection, call.body.others),
  );
  declare(routes.places.toBin, (call) => binCollection(services, call, call.params.collection));
  declare(routes.places.compare, (call) => compareCollections(services, call, call.query.of));
  declare(routes.places.byName, (call) => orderByName(services, call.actor, call.body.parent ?? null));
  declare(routes.places.place, (call) => placeCollection(services, call.actor, call.body));
  declare(routes.places.unplace, (call) => removePlacement(services, call.actor, call.params.placement));
  declare(routes.places.file, async (call) =>
    fileSources(services, call.actor, await chosenIds(services, call, call.body), call.body),
  );
}
