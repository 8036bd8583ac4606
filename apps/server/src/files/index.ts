/** The content of files and the words in them. */
import { ONCE_A_DAY, type Capability } from '../capability.ts';
import { addFileJob } from './jobs.ts';
import { fileRoutes } from './routes.ts';
import { sweepFiles } from './sweep.ts';

export const files: Capability = {
  routes: fileRoutes,
  jobs: [addFileJob],
  regular: { 'sweep-files': { at: ONCE_A_DAY, work: (services) => sweepFiles(services) } },
};
