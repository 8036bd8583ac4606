/** Undo, redo and history. */
import { Changed, HistoryReply } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { answer } from './commit.ts';
import { historyOfSource, historyOfWorkspace } from './history.ts';
import { redo, undo } from './service.ts';

export function changeRoutes(declare: Declare, services: Services): void {
  declare({
    method: 'POST',
    path: '/w/:workspace/undo',
    may: 'edit',
    summary: 'Undo your last change that stands.',
    reply: Changed,
    handler: ({ actor }) => undo(services, actor).then(answer),
  });
  declare({
    method: 'POST',
    path: '/w/:workspace/redo',
    may: 'edit',
    summary: 'Do again what you undid last.',
    reply: Changed,
    handler: ({ actor }) => redo(services, actor).then(answer),
  });
  declare({
    method: 'POST',
    path: '/w/:workspace/changes/:change/undo',
    may: 'edit',
    summary: 'Undo one change.',
    reply: Changed,
    handler: ({ actor, params }) => undo(services, actor, params.change).then(answer),
  });
  declare({
    method: 'GET',
    path: '/w/:workspace/changes',
    may: 'read',
    summary: 'The last changes in the workspace.',
    reply: HistoryReply,
    handler: async ({ workspace }) => ({ entries: await historyOfWorkspace(services.db, workspace.id) }),
  });
  declare({
    method: 'GET',
    path: '/w/:workspace/sources/:source/history',
    may: 'read',
    summary: 'Every change to a source.',
    reply: HistoryReply,
    handler: async ({ workspace, params }) => ({
      entries: await historyOfSource(services.db, workspace.id, params.source!),
    }),
  });
}
