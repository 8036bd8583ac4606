/** Following and cancelling long work. */
import { JobList } from '@pandecta/contract';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { listJobs } from './service.ts';

export function jobRoutes(declare: Declare, { db, jobs }: Services): void {
  declare({
    method: 'GET',
    path: '/w/:workspace/jobs',
    may: 'read',
    summary: 'Running and recent jobs.',
    reply: JobList,
    handler: async ({ workspace }) => ({ jobs: await listJobs(db, workspace.id) }),
  });
  declare({
    method: 'POST',
    path: '/w/:workspace/jobs/:job/cancel',
    may: 'gather',
    summary: 'Cancel a job; what it would have brought in one piece does not come.',
    reply: JobList,
    handler: async ({ workspace, params }) => {
      await jobs.cancel(workspace.id, params.job!);
      return { jobs: await listJobs(db, workspace.id) };
    },
  });
}
