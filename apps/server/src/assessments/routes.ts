import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import { chosenIds } from '../searching/chosen.ts';
import type { Services } from '../services.ts';
import { editLabel, labelList, labelSources, makeLabel, rateSources, recheckSources, removeLabel } from './service.ts';

export function assessmentRoutes(declare: Declare, services: Services): void {
  const { assessments } = routes;
  declare(assessments.labels, (call) => labelList(services, call));
  declare(assessments.makeLabel, (call) => makeLabel(services, call, call.body));
  declare(assessments.editLabel, (call) => editLabel(services, call, call.params.label, call.body));
  declare(assessments.removeLabel, (call) => removeLabel(services, call, call.params.label));
  declare(assessments.label, async (call) =>
    labelSources(services, call, await chosenIds(services, call, call.body), call.body.label, call.body.present),
  );
  declare(assessments.rate, async (call) =>
    rateSources(services, call, await chosenIds(services, call, call.body), call.body.rating),
  );
  declare(assessments.recheck, async (call) =>
    recheckSources(services, call, await chosenIds(services, call, call.body), call.body.reason),
  );
}
