import { defineJob } from '../capability.ts';
import { doLargeChange, type Deed } from './service.ts';

export const changeJob = defineJob<Deed>({
  kind: 'change',
  nothing: 'nothing was changed',
  failed: 'The change failed on the server; nothing was changed.',
  work: doLargeChange,
});
