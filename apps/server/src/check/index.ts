/** Check: duplicates become one, records become right, nothing lies loose. */
import type { Capability } from '../capability.ts';
import { lookOverBehind } from './behind.ts';
import { compareJob } from './jobs.ts';
import { checkRoutes } from './routes.ts';

export const check: Capability = {
  routes: checkRoutes,
  jobs: [compareJob],
  regular: { 'look-over': { at: '*/5 * * * *', work: ({ db }) => lookOverBehind(db) } },
};
