/** The people, bodies, places, events and themes that notes and sources are about. */
import type { Capability } from '../capability.ts';
import { headingLists } from './lists.ts';
import { headingRoutes } from './routes.ts';
import { headingSubjects } from './subjects.ts';

export const headings = {
  routes: headingRoutes,
  lists: headingLists,
  subjects: headingSubjects,
} satisfies Capability;
