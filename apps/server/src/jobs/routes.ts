/** Following, pausing and cancelling long work. */
import { routes, type JobList } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';

export function jobRoutes(declare: Declare, { jobs }: Services): void {
  const list = async (workspaceId: string): Promise<JobList> => ({ jobs: await jobs.list(workspaceId) });
  declare(routes.jobs.jobs, ({ workspace }) => list(workspace.id));
  declare(routes.jobs.cancel, async ({ workspace, params }) => {
    await jobs.cancel(workspace.id, params.job);
    return list(workspace.id);
  });
  declare(routes.jobs.again, async ({ workspace, params }) => {
    await jobs.again(workspace.id, params.job);
    return list(workspace.id);
  });
  declare(routes.jobs.pause, async ({ workspace, params }) => {
    await jobs.rest(workspace.id, params.job, true);
    return list(workspace.id);
  });
  declare(routes.jobs.resume, async ({ workspace, params }) => {
    await jobs.rest(workspace.id, params.job, false);
    return list(workspace.id);
  });
}
