import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { bring, consolidation } from './consolidate.ts';
import { findLoose } from './loose.ts';
import { compareAgain, duplicates, merge, mergeMany, relate } from './merging.ts';
import { suggestions } from './suggest.ts';
import { cases, findings, findingsIn, mend, settle } from './proofing.ts';

export function checkRoutes(declare: Declare, services: Services): void {
  declare(routes.check.duplicates, ({ workspace }) => duplicates(services, workspace.id));
  declare(routes.check.compare, ({ actor }) => compareAgain(services, actor));
  declare(routes.check.merge, ({ actor, body }) => merge(services, actor, body));
  declare(routes.check.mergeMany, ({ actor, body }) => mergeMany(services, actor, body.groups));
  declare(routes.check.relate, ({ actor, body }) => relate(services, actor, body));
  declare(routes.check.consolidation, (caller) => consolidation(services, caller, caller.body));
  declare(routes.check.bring, (caller) => bring(services, caller, caller.body));
  declare(routes.check.findings, ({ actor, query }) => findings(services, actor, query));
  declare(routes.check.findingsIn, ({ workspace, params, query }) =>
    findingsIn(services, workspace.id, params.source, query),
  );
  declare(routes.check.settle, ({ actor, body }) => settle(services, actor, body));
  declare(routes.check.cases, (caller) => cases(services, caller, caller.body));
  declare(routes.check.mend, ({ actor, body }) => mend(services, actor, body));
  declare(routes.check.suggestions, ({ workspace, params }) => suggestions(services.db, workspace.id, params.source));
  declare(routes.check.loose, async ({ workspace, user }) => ({
    queues: await findLoose(services.db, workspace.id, user.id),
  }));
}
