/** What a gathering brought in waits here until someone takes it in, joins it to what is here, or sets it aside. */
import type { Capability } from '../capability.ts';
import { intakeRoutes } from './routes.ts';

export const intake: Capability = { routes: intakeRoutes };
