/** How sources stand to each other: agrees with, cites, overrules …, each with a note and a page. */
import type { Capability } from '../capability.ts';
import { relationRoutes } from './routes.ts';

export const relations: Capability = {
  routes: relationRoutes,
};
