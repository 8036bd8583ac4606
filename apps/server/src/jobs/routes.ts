/** Following, pausing and cancelling long work. */
import { routes, type JobList } from '@pandecta/contract';
import type { Actor } from '../access/principal.ts';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';

export function jobRoutes(declare: Declare, { jobs }: Services): void {
  const list = async (viewer: Actor): Promise<JobList> => ({ jobs: await jobs.list(viewer) });
  declare(routes.jobs.jobs, ({ actor }) => list(actor));
  declare(routes.jobs.cancel, async ({ workspace, actor, params }) => {
    await jobs.cancel(workspace.id, params.job);
    return list(actor);
  });
  declare(routes.jobs.again, async ({ workspace, actor, params }) => {
    await jobs.again(workspace.id, params.job);
    return list(actor);
  });
  declare(routes.jobs.pause, async ({ workspace, actor, params }) => {
    await jobs.rest(workspace.id, params.job, true);
    return list(actor);
  });
  declare(routes.jobs.resume, async ({ workspace, actor, params }) => {
    await jobs.rest(workspace.id, params.job, false);
    return list(actor);
  });
}
