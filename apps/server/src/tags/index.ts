/** Tags and subject terms. */
import type { Capability } from '../capability.ts';
import { tagRoutes } from './routes.ts';

export const tags: Capability = {
  routes: tagRoutes,
};
