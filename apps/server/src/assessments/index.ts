/** What the workspace says of its sources: labels and ratings. */
import { stateSubjects } from './subjects.ts';
import { stateLists } from './lists.ts';
import { stateLine } from './line.ts';
import { stateFields } from './fields.ts';
import { stateFacets } from './facets.ts';
import { stateChanges } from './change.ts';
import type { Capability } from '../capability.ts';
import { assessmentRoutes } from './routes.ts';

export const assessments = {
  routes: assessmentRoutes,
  changes: stateChanges,
  facets: [stateFacets],
  fields: stateFields,
  line: stateLine,
  lists: stateLists,
  purged: ['source_labels', 'source_ratings', 'source_rechecks'],
  subjects: stateSubjects,
} satisfies Capability;
