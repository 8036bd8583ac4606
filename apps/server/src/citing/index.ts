/** Styles, citations, bibliographies, export. */
import type { Capability } from '../capability.ts';
import { citeRoutes } from './routes.ts';

export const citing = {
  routes: citeRoutes,
} satisfies Capability;
