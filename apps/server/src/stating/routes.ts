import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import { chosenIds } from '../searching/chosen.ts';
import type { Services } from '../services.ts';
import { editLabel, labelList, labelSources, makeLabel, rateSources, recheckSources, removeLabel } from './service.ts';

export function statingRoutes(declare: Declare, services: Services): void {
  const { stating } = routes;
  declare(stating.labels, (call) => labelList(services, call));
  declare(stating.makeLabel, (call) => makeLabel(services, call, call.body));
  declare(stating.editLabel, (call) => editLabel(services, call, call.params.label, call.body));
  declare(stating.removeLabel, (call) => removeLabel(services, call, call.params.label));
  declare(stating.label, async (call) =>
    labelSources(services, call, await chosenIds(services, call, call.body), call.body.label, call.body.present),
  );
  declare(stating.rate, async (call) =>
    rateSources(services, call, await chosenIds(services, call, call.body), call.body.rating),
  );
  declare(stating.recheck, async (call) =>
    recheckSources(services, call, await chosenIds(services, call, call.body), call.body.reason),
  );
}
