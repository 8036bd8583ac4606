import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { setReading, setStar } from './service.ts';

export function ownRoutes(declare: Declare, services: Services): void {
  declare(routes.own.reading, ({ actor, body }) => setReading(services, actor, body.ids, body.state ?? null));
  declare(routes.own.star, ({ actor, body }) => setStar(services, actor, body.ids, body.present));
}
