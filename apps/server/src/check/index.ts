/** Check: duplicates become one, records become right, nothing lies loose. */
import type { Capability } from '../capability.ts';
import { checkRoutes } from './routes.ts';

export const check: Capability = { routes: checkRoutes };
