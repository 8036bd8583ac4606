/** Collections, where they stand and what is filed in them. */
import type { Capability } from '../capability.ts';
import { healTrees } from './heal.ts';
import { placeRoutes } from './routes.ts';

export const places: Capability = {
  routes: placeRoutes,
  first: ({ db }) => healTrees(db),
};
