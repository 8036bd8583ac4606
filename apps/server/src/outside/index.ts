/** What is outside: catalogues that are searched and watched, and fetching from there at all. */
import type { Capability } from '../capability.ts';
import { outsideRoutes } from './routes.ts';
import { runDueWatches } from './watches.ts';

export const outside = {
  routes: outsideRoutes,
  regular: { watches: { at: '*/5 * * * *', work: runDueWatches } },
} satisfies Capability;
