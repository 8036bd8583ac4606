/** Glosses on the whole of a source. */
import type { Capability } from '../capability.ts';
import { glossChanges } from './change.ts';
import { glossFacets } from './facets.ts';
import { glossDocuments } from './documents.ts';
import { glossRoutes } from './routes.ts';
import { glossSubjects } from './subjects.ts';

export const glosses = {
  routes: glossRoutes,
  changes: glossChanges,
  facets: [glossFacets],
  documents: glossDocuments,
  purged: ['glosses'],
  subjects: glossSubjects,
} satisfies Capability;
