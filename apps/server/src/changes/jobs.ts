import type { JobKind } from '../jobs/kind.ts';
import { changeWork } from './service.ts';

export const changeJob: JobKind = {
  kind: 'change',
  nothing: 'nothing was changed',
  failed: 'The change failed on the server; nothing was changed.',
  work: changeWork,
};
