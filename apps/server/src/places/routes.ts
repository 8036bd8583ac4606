/** Places: the tree of collections and filing. */
import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import { chosenIds } from '../searching/chosen.ts';
import type { Services } from '../services.ts';
import { compareCollections, placesOf } from './compare.ts';
import { fileSources } from './filing.ts';
import { refuseOthers, refusePlacement } from './whose.ts';
import { editCollection, makeCollection, orderByName, placeCollection, removePlacement } from './service.ts';
import { binCollection, copyCollection, mergeCollections } from './whole.ts';

export function placeRoutes(declare: Declare, services: Services): void {
  const { db } = services;
  declare(routes.places.places, (call) => placesOf(services, call));
  declare(routes.places.make, async (call) => {
    const { name, parent = null, mine } = call.body;
    await refuseOthers(db, call, mine ? [] : [parent], 'arrange');
    return makeCollection(services, call.actor, name, parent, mine);
  });
  declare(routes.places.edit, async (call) => {
    await refuseOthers(db, call, [call.params.collection, ...(call.body.mine === false ? [null] : [])], 'arrange');
    return editCollection(services, call, call.params.collection, call.body);
  });
  declare(routes.places.copy, async (call) => {
    await refuseOthers(db, call, [call.params.collection], 'arrange');
    return copyCollection(services, call.actor, call.params.collection);
  });
  declare(routes.places.merge, async (call) => {
    await refuseOthers(db, call, [call.params.collection, ...call.body.others], 'arrange');
    return mergeCollections(services, call.actor, call.params.collection, call.body.others);
  });
  declare(routes.places.toBin, (call) => binCollection(services, call, call.params.collection));
  declare(routes.places.compare, (call) => compareCollections(services, call, call.query.of));
  declare(routes.places.byName, (call) => orderByName(services, call.actor, call.body.parent ?? null));
  declare(routes.places.place, async (call) => {
    await refuseOthers(db, call, [call.body.collection], 'arrange');
    return placeCollection(services, call.actor, call.body);
  });
  declare(routes.places.unplace, async (call) => {
    await refusePlacement(db, call, call.params.placement);
    return removePlacement(services, call.actor, call.params.placement);
  });
  declare(routes.places.file, async (call) => {
    await refuseOthers(db, call, [...call.body.collections, ...(call.body.from ? [call.body.from] : [])], 'edit');
    return fileSources(services, call.actor, await chosenIds(services, call, call.body), call.body);
  });
}
