/** Asking: questions compiled, columns, lines and facets. */
import type { Capability } from '../capability.ts';
import { searchRoutes } from './routes.ts';

export const searching = {
  routes: searchRoutes,
} satisfies Capability;
