/** Following and cancelling long work. */
import { routes } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { listJobs } from './service.ts';

export function jobRoutes(declare: Declare, { db, jobs }: Services): void {
  declare(routes.jobs.jobs, async ({ workspace }) => ({ jobs: await listJobs(db, workspace.id) }));
  declare(routes.jobs.cancel, async ({ workspace, params }) => {
    await jobs.cancel(workspace.id, params.job);
    return { jobs: await listJobs(db, workspace.id) };
  });
}
