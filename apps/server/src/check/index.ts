/** Check: duplicates become one, records become right, nothing lies loose. */
import { checkFields } from './fields.ts';
import { findingFacets } from './facets.ts';
import { checkChanges } from './change.ts';
import type { Capability } from '../capability.ts';
import { lookOverBehind } from './behind.ts';
import { compareJob } from './jobs.ts';
import { checkRoutes } from './routes.ts';

export const check = {
  routes: checkRoutes,
  jobs: [compareJob],
  regular: { 'look-over': { at: '*/5 * * * *', work: ({ db }) => lookOverBehind(db) } },
  changes: checkChanges,
  facets: [findingFacets],
  fields: checkFields,
  purged: ['compare_queue', 'settled', 'source_meets', 'likely_pairs'],
} satisfies Capability;
