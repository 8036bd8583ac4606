/** Files come in and become sources. */
import { ONCE_A_DAY, type Capability } from '../capability.ts';
import { importJob } from './jobs.ts';
import { forgetEnded } from './prepare/readings.ts';
import { gatherRoutes } from './routes.ts';

export const gathering = {
  routes: gatherRoutes,
  jobs: [importJob],
  regular: { 'forget-readings': { at: ONCE_A_DAY, work: ({ db }) => forgetEnded(db) } },
  purged: ['source_origins'],
} satisfies Capability;
