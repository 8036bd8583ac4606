import type { JobKind } from '../jobs/kind.ts';
import { importWork } from './import.ts';

export const importJob: JobKind = {
  kind: 'import',
  nothing: 'nothing was added',
  failed: 'The import failed on the server; nothing was added. The files are kept, so it can be tried again.',
  rests: true,
  atOnce: 3,
  work: importWork,
};
