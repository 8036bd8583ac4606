import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import { chosenIds } from '../searching/chosen.ts';
import type { Services } from '../services.ts';
import { keepOpen, openOf } from './open.ts';
import { setReading, setStar } from './service.ts';

export function ownRoutes(declare: Declare, services: Services): void {
  declare(routes.own.reading, async (call) =>
    setReading(services, call.actor, await chosenIds(services, call, call.body), call.body.state ?? null),
  );
  declare(routes.own.star, async (call) =>
    setStar(services, call.actor, await chosenIds(services, call, call.body), call.body.present),
  );
  declare(routes.own.openDocuments, ({ actor }) => openOf(services.db, actor));
  declare(routes.own.keepOpen, ({ actor, body }) => keepOpen(services.db, actor, body));
}
