/** Collections, where they stand and what is filed in them. */
import { placeSubjects } from './subjects.ts';
import { placeLine } from './line.ts';
import { placeFields, placeNarrowings } from './fields.ts';
import { placeFacets } from './facets.ts';
import { placeChanges } from './change.ts';
import type { Capability } from '../capability.ts';
import { healTrees } from './heal.ts';
import { placeRoutes } from './routes.ts';

export const places = {
  routes: placeRoutes,
  first: ({ db }) => healTrees(db),
  changes: placeChanges,
  facets: [placeFacets],
  fields: placeFields,
  narrowings: placeNarrowings,
  line: placeLine,
  purged: ['collection_sources'],
  subjects: placeSubjects,
} satisfies Capability;
