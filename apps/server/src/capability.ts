/**
 * A part of the server: a folder whose `index.ts` says what it serves. What else it brings is listed where all of its sort
 * are: its tables in `database/schema.ts`, its kinds of change in `changes/carriers.ts`, its facets in
 * `indexing/facets.ts`. There a missing one does not compile, or fails a test.
 */
import type { Declare } from './http/route.ts';
import type { JobKind } from './jobs/kind.ts';
import type { Services } from './services.ts';

/** At a quiet hour. */
export const ONCE_A_DAY = '17 3 * * *';

export interface Capability {
  routes: (declare: Declare, services: Services) => void;
  /** What is looked after before anything else is done. */
  first?: (services: Services) => Promise<unknown>;
  /** Long work it does. */
  jobs?: JobKind[];
  /** Work one of the servers does by itself at certain times, by name; `at` as cron has it. */
  regular?: Record<string, { at: string; work: (services: Services) => Promise<unknown> }>;
}
