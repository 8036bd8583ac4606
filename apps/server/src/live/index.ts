/** News of what is touched. */
import type { Capability } from '../capability.ts';
import { liveRoutes } from './routes.ts';

export const live = {
  routes: liveRoutes,
} satisfies Capability;
