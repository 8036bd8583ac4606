import { defineJob } from '../capability.ts';
import { importWork } from './import.ts';

/** Its input lies in the row of its import. */
export const importJob = defineJob<null>({
  kind: 'import',
  nothing: 'nothing was added',
  failed: 'The import failed on the server; nothing was added. The files are kept, so it can be tried again.',
  rests: true,
  atOnce: 3,
  work: importWork,
});
