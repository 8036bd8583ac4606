/** What the workspace says of its sources: labels and ratings. */
import type { Capability } from '../capability.ts';
import { statingRoutes } from './routes.ts';

export const stating: Capability = {
  routes: statingRoutes,
};
