import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import { chosenIds } from '../searching/chosen.ts';
import type { Services } from '../services.ts';
import { lookUpOne, startLookingUp } from './look-up.ts';
import { respanOne } from './respan.ts';
import {
  certainOnes,
  completeOnes,
  detail,
  fetchFullText,
  gatherListed,
  intakePage,
  join,
  joinCertain,
  setAside,
  summary,
  takeIn,
} from './service.ts';

export function intakeRoutes(declare: Declare, services: Services): void {
  declare(routes.intake.page, (call) => intakePage(services, call, call.query));
  declare(routes.intake.summary, ({ workspace }) => summary(services, workspace.id));
  declare(routes.intake.complete, ({ actor }) => completeOnes(services, actor.workspaceId));
  declare(routes.intake.one, ({ actor, params }) => detail(services, actor, params.source));
  declare(routes.intake.takeIn, async (call) =>
    takeIn(services, call.actor, await chosenIds(services, call, call.body), call.body.complete),
  );
  declare(routes.intake.certain, ({ actor }) => certainOnes(services, actor.workspaceId));
  declare(routes.intake.joinCertain, async (call) =>
    joinCertain(services, call.actor, await chosenIds(services, call, call.body)),
  );
  declare(routes.intake.join, ({ actor, params, body }) => join(services, actor, params.source, body.to));
  declare(routes.intake.setAside, async (call) =>
    setAside(services, call.actor, await chosenIds(services, call, call.body), call.body.aside),
  );
  declare(routes.intake.respan, ({ actor, params, body }) => respanOne(services, actor, params.source, body));
  declare(routes.intake.listed, ({ actor, params, body }) => gatherListed(services, actor, params.source, body.items));
  declare(routes.intake.fetchPdf, ({ workspace, actor, params }) =>
    fetchFullText(services, workspace, actor, params.source),
  );
  declare(routes.intake.lookUp, ({ actor, params }) => lookUpOne(services, actor, params.source));
  declare(routes.intake.lookUpMany, async (call) =>
    startLookingUp(services, call.actor, await chosenIds(services, call, call.body)),
  );
}
