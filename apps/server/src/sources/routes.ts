/** Sources: one in full, editing, adding by hand, reading state, bin, and what several share. */
import {
  BatchSummary,
  Changed,
  EditRecord,
  NewSource,
  SetPresence,
  SetReading,
  SourceDetail,
  SourceIds,
} from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import { findCollection } from '../places/store.ts';
import type { Services } from '../services.ts';
import { addByHand, editRecord, setPresence, setReading } from './service.ts';
import { findSource, summarise } from './store.ts';

export function sourceRoutes(declare: Declare, services: Services): void {
  declare({
    method: 'GET',
    path: '/w/:workspace/sources/:source',
    may: 'read',
    summary: 'One source in full.',
    reply: SourceDetail,
    handler: ({ workspace, params }) => findSource(services.db, workspace.id, params.source!),
  });
  declare({
    method: 'PATCH',
    path: '/w/:workspace/sources/:source',
    may: 'edit',
    summary: 'Set or take away fields of a record.',
    body: EditRecord,
    reply: Changed,
    handler: (call) => editRecord(services, call.actor, call.params.source!, call.body.fields, call.body.version),
  });
  declare({
    method: 'POST',
    path: '/w/:workspace/sources',
    may: 'gather',
    summary: 'Add a source by hand.',
    body: NewSource,
    reply: Changed,
    handler: async (call) =>
      addByHand(
        services,
        call.actor,
        call.body.record,
        call.body.collection ? await findCollection(services.db, call.workspace.id, call.body.collection) : undefined,
      ),
  });
  declare({
    method: 'POST',
    path: '/w/:workspace/reading',
    may: 'edit',
    summary: 'Set or clear the reading state of sources.',
    body: SetReading,
    reply: Changed,
    handler: (call) => setReading(services, call.actor, call.body.ids, call.body.state),
  });
  declare({
    method: 'POST',
    path: '/w/:workspace/presence',
    may: 'edit',
    summary: 'Move sources to the bin, or restore them from it.',
    body: SetPresence,
    reply: Changed,
    handler: (call) => setPresence(services, call.actor, call.body.ids, call.body.to),
  });
  declare({
    method: 'POST',
    path: '/w/:workspace/summary',
    may: 'read',
    summary: 'What several sources share.',
    body: SourceIds,
    reply: BatchSummary,
    handler: ({ workspace, body }) => summarise(services.db, workspace.id, body.ids),
  });
}
