/** Places: the tree of collections and filing. */
import {
  Changed,
  FileSources,
  NewCollection,
  PlaceCollection,
  PlacesReply,
  RenameCollection,
} from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { fileSources, makeCollection, placeCollection, removePlacement, renameCollection } from './service.ts';
import { findPlaces } from './store.ts';

export function placeRoutes(declare: Declare, services: Services): void {
  declare({
    method: 'GET',
    path: '/w/:workspace/places',
    may: 'read',
    summary: 'The collections, where they stand and what they hold.',
    reply: PlacesReply,
    handler: ({ workspace }) => findPlaces(services, workspace.id),
  });
  declare({
    method: 'POST',
    path: '/w/:workspace/collections',
    may: 'arrange',
    summary: 'Make a collection.',
    body: NewCollection,
    reply: Changed,
    handler: (call) => makeCollection(services, call.actor, call.body.name, call.body.parent ?? null),
  });
  declare({
    method: 'PATCH',
    path: '/w/:workspace/collections/:collection',
    may: 'arrange',
    summary: 'Rename a collection.',
    body: RenameCollection,
    reply: Changed,
    handler: (call) => renameCollection(services, call.actor, call.params.collection!, call.body.name),
  });
  declare({
    method: 'POST',
    path: '/w/:workspace/placements',
    may: 'arrange',
    summary: 'Place a collection, or move a placement.',
    body: PlaceCollection,
    reply: Changed,
    handler: (call) => placeCollection(services, call.actor, { ...call.body, parent: call.body.parent ?? null }),
  });
  declare({
    method: 'DELETE',
    path: '/w/:workspace/placements/:placement',
    may: 'arrange',
    summary: 'Remove a placement; its sources stay.',
    reply: Changed,
    handler: (call) => removePlacement(services, call.actor, call.params.placement!),
  });
  declare({
    method: 'POST',
    path: '/w/:workspace/filing',
    may: 'edit',
    summary: 'File sources in a collection, or take them from it.',
    body: FileSources,
    reply: Changed,
    handler: (call) => fileSources(services, call.actor, call.body.ids, call.body.collection, call.body.present),
  });
}
