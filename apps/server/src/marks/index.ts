/** Documents with their marks. */
import type { Capability } from '../capability.ts';
import { markRoutes } from './routes.ts';

export const marks: Capability = {
  routes: markRoutes,
};
