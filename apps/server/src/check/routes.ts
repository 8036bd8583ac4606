import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { duplicates, findings, mend, merge, mergeMany, relate } from './service.ts';
import { findLoose } from './store.ts';

export function checkRoutes(declare: Declare, services: Services): void {
  declare(routes.check.duplicates, ({ workspace }) => duplicates(services, workspace.id));
  declare(routes.check.merge, ({ actor, body }) => merge(services, actor, body));
  declare(routes.check.mergeMany, ({ actor, body }) => mergeMany(services, actor, body.groups));
  declare(routes.check.relate, ({ actor, body }) => relate(services, actor, body));
  declare(routes.check.findings, ({ workspace, query }) => findings(services, workspace.id, query.style, query.rule));
  declare(routes.check.mend, ({ actor, body }) => mend(services, actor, body));
  declare(routes.check.loose, async ({ workspace, user }) => ({
    queues: await findLoose(services.db, workspace.id, user.id),
  }));
}
