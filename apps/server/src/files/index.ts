/** The content of files and the words in them. */
import type { Capability } from '../capability.ts';
import { addFileJob } from './jobs.ts';
import { fileRoutes } from './routes.ts';

export const files: Capability = {
  routes: fileRoutes,
  jobs: [addFileJob],
};
