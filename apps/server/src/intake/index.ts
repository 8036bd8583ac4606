/** What a gathering brought in waits here until someone takes it in, joins it to what is here, or sets it aside. */
import { intakeFacets } from './facets.ts';
import type { Capability } from '../capability.ts';
import { askAgain } from './again.ts';
import { lookUpJob } from './look-up.ts';
import { intakeRoutes } from './routes.ts';

export const intake = {
  routes: intakeRoutes,
  jobs: [lookUpJob],
  regular: { 'ask-again': { at: '*/5 * * * *', work: askAgain } },
  facets: [intakeFacets],
} satisfies Capability;
