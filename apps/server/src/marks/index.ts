/** Documents with their marks, and what marks mean. */
import { markSubjects } from './subjects.ts';
import { markDocuments } from './documents.ts';
import { markLine } from './line.ts';
import { markFields } from './fields.ts';
import { markFacets } from './facets.ts';
import { senseLists } from './senses.ts';
import { markChanges } from './change.ts';
import type { Capability } from '../capability.ts';
import { markRoutes } from './routes.ts';

export const marks = {
  routes: markRoutes,
  changes: markChanges,
  facets: [markFacets],
  fields: markFields,
  documents: markDocuments,
  line: markLine,
  lists: senseLists,
  purged: ['marks'],
  subjects: markSubjects,
} satisfies Capability;
