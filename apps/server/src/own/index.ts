/** What is each member's own: reading states and stars. */
import { ownLine } from './line.ts';
import { ownFields } from './fields.ts';
import { ownFacets } from './facets.ts';
import { ownChanges } from './change.ts';
import type { Capability } from '../capability.ts';
import { ownRoutes } from './routes.ts';

export const own = {
  routes: ownRoutes,
  changes: ownChanges,
  facets: [ownFacets],
  fields: ownFields,
  line: ownLine,
} satisfies Capability;
