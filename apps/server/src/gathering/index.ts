/** Files come in and become sources. */
import type { Capability } from '../capability.ts';
import { importJob } from './jobs.ts';
import { gatherRoutes } from './routes.ts';

export const gathering: Capability = {
  routes: gatherRoutes,
  jobs: [importJob],
};
