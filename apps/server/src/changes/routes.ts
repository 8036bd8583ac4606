/** Undo, redo and history. */
import { routes } from '@pandecta/contract';
import { may } from '../access/permissions.ts';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { answer } from './commit.ts';
import { historyOfSource, historyOfWorkspace, touchedBy } from './history.ts';
import { redo, undo, whyNotUndo } from './service.ts';
import { versionsOf } from './versions.ts';

export function changeRoutes(declare: Declare, services: Services): void {
  declare(routes.changes.undo, ({ actor, workspace: { role } }) => undo(services, { ...actor, role }).then(answer));
  declare(routes.changes.redo, ({ actor, workspace: { role } }) => redo(services, { ...actor, role }).then(answer));
  declare(routes.changes.undoOne, ({ actor, workspace: { role }, params }) =>
    undo(services, { ...actor, role }, params.change).then(answer),
  );
  declare(routes.changes.activity, async ({ actor, workspace: { role }, query }) => ({
    entries: await historyOfWorkspace(services.db, actor, may(role, 'gather'), query),
  }));
  declare(routes.changes.touched, async ({ actor, workspace: { role }, params: { change } }) => {
    const [touched, stays] = await Promise.all([
      touchedBy(services.db, actor, change, may(role, 'gather')),
      whyNotUndo(services, { ...actor, role }, change),
    ]);
    return { ...touched, stays };
  });
  declare(routes.changes.versions, ({ actor, params }) => versionsOf(services.db, actor, params.source));
  declare(routes.changes.history, async ({ actor, params }) => ({
    entries: await historyOfSource(services.db, actor, params.source),
  }));
}
