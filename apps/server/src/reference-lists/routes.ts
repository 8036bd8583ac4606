import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { findListed, sayCited } from './service.ts';

export function referenceListRoutes(declare: Declare, services: Services): void {
  declare(routes.relations.listed, ({ actor, params }) => findListed(services, actor, params.source));
  declare(routes.relations.cites, ({ actor, params, body }) => sayCited(services, actor, params.source, body.cited));
}
