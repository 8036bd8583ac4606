/** Tags and subject terms. */
import { tagSubjects } from './subjects.ts';
import { tagLine } from './line.ts';
import { tagFields } from './fields.ts';
import { tagFacets } from './facets.ts';
import { tagChanges } from './change.ts';
import type { Capability } from '../capability.ts';
import { tagRoutes } from './routes.ts';

export const tags = {
  routes: tagRoutes,
  changes: tagChanges,
  facets: [tagFacets],
  fields: tagFields,
  line: tagLine,
  purged: ['source_tags'],
  subjects: tagSubjects,
} satisfies Capability;
