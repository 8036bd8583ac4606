/** Check: duplicates become one, records become right, nothing lies loose. */
import type { Capability } from '../capability.ts';
import { lookOverBehind } from './behind.ts';
import { checkRoutes } from './routes.ts';

export const check: Capability = {
  routes: checkRoutes,
  regular: { 'look-over': { at: '*/5 * * * *', work: ({ db }) => lookOverBehind(db) } },
};
