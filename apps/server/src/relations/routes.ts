import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { like } from './like.ts';
import { findRelationsOf, sayRelation } from './service.ts';

export function relationRoutes(declare: Declare, services: Services): void {
  declare(routes.relations.of, ({ actor, params }) => findRelationsOf(services, actor, params.source));
  declare(routes.relations.like, (call) => like(services.db, call, call.params.source));
  declare(routes.relations.say, ({ actor, body }) => sayRelation(services, actor, body));
}
