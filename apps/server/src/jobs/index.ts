/** Following and cancelling long work. */
import type { Capability } from '../capability.ts';
import { jobRoutes } from './routes.ts';

export const jobs = {
  routes: jobRoutes,
} satisfies Capability;
