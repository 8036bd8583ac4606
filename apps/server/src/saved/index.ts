/** Saved searches: questions that are kept, with how many sources answer them now. */
import { savedSubjects } from './subjects.ts';
import { savedLists } from './lists.ts';
import { savedFields } from './fields.ts';
import type { Capability } from '../capability.ts';
import { savedRoutes } from './routes.ts';
import { tellOfWatched } from './watching.ts';

export const saved = {
  routes: savedRoutes,
  regular: { 'watched searches': { at: '*/15 * * * *', work: tellOfWatched } },
  fields: savedFields,
  lists: savedLists,
  subjects: savedSubjects,
} satisfies Capability;
