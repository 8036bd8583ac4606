/** Saved searches: questions that are kept, with how many sources answer them now. */
import type { Capability } from '../capability.ts';
import { savedRoutes } from './routes.ts';

export const saved: Capability = {
  routes: savedRoutes,
};
