/** Saved searches: questions that are kept, with how many sources answer them now. */
import type { Capability } from '../capability.ts';
import { savedRoutes } from './routes.ts';
import { tellOfWatched } from './watching.ts';

export const saved: Capability = {
  routes: savedRoutes,
  regular: { 'watched searches': { at: '*/15 * * * *', work: tellOfWatched } },
};
