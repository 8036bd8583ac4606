import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { like } from './like.ts';
import { findListed, sayCited } from './listed.ts';
import { findRelationsOf, sayRelation } from './service.ts';

export function relationRoutes(declare: Declare, services: Services): void {
  declare(routes.relations.of, ({ actor, params }) => findRelationsOf(services, actor, params.source));
  declare(routes.relations.listed, ({ actor, params }) => findListed(services, actor, params.source));
  declare(routes.relations.cites, ({ actor, params, body }) => sayCited(services, actor, params.source, body.cited));
  declare(routes.relations.like, (call) => like(services.db, call, call.params.source));
  declare(routes.relations.say, ({ actor, body }) => sayRelation(services, actor, body));
}
