/** Undo, redo and history. */
import type { Capability } from '../capability.ts';
import { changeJob } from './jobs.ts';
import { changeRoutes } from './routes.ts';

export const changes = {
  routes: changeRoutes,
  jobs: [changeJob],
} satisfies Capability;
