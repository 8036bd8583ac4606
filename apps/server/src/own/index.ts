/** What is each member's own: reading states and stars. */
import type { Capability } from '../capability.ts';
import { ownRoutes } from './routes.ts';

export const own: Capability = {
  routes: ownRoutes,
};
