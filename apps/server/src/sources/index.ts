/** Sources: editing, adding by hand, the bin. */
import type { Capability } from '../capability.ts';
import { purge } from './purge.ts';
import { sourceRoutes } from './routes.ts';

export const sources: Capability = {
  routes: sourceRoutes,
  daily: { 'empty-bin': ({ db, storage }) => purge(db, storage) },
};
