/** Signing in and out, and who may do what. */
import type { Capability } from '../capability.ts';
import { accessRoutes } from './routes.ts';

export const access: Capability = {
  routes: accessRoutes,
};
