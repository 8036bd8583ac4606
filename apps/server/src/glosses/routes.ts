import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { editGloss, glossesOf, removeGloss, shareGloss, writeGloss } from './service.ts';

export function glossRoutes(declare: Declare, services: Services): void {
  const { glosses } = routes;
  declare(glosses.list, ({ actor, params }) => glossesOf(services.db, actor, params.source));
  declare(glosses.write, ({ actor, params, body }) => writeGloss(services, actor, params.source, body));
  declare(glosses.edit, ({ actor, params, body }) => editGloss(services, actor, params.gloss, body));
  declare(glosses.share, ({ actor, params }) => shareGloss(services, actor, params.gloss));
  declare(glosses.remove, ({ actor, params }) => removeGloss(services, actor, params.gloss));
}
