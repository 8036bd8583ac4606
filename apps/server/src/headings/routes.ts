import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { headingPage } from './page.ts';
import { editHeading, makeHeading, mergeHeading, offerHeadings, partHeading, removeHeading } from './service.ts';
import { headingsOf } from './store.ts';

export function headingRoutes(declare: Declare, services: Services): void {
  const { headings } = routes;
  declare(headings.list, async ({ actor }) => ({ headings: await headingsOf(services.db, actor) }));
  declare(headings.offer, (call) => offerHeadings(services, call, call.body.q));
  declare(headings.page, (call) => headingPage(services, call, call.params.heading));
  declare(headings.make, (call) => makeHeading(services, call, call.body));
  declare(headings.edit, (call) => editHeading(services, call, call.params.heading, call.body));
  declare(headings.remove, (call) => removeHeading(services, call, call.params.heading));
  declare(headings.merge, (call) => mergeHeading(services, call, call.params.heading, call.body.into));
  declare(headings.part, (call) => partHeading(services, call, call.params.heading));
}
