/** How sources stand to each other: agrees with, cites, overrules …, each with a note and a page. */
import { relationFields } from './fields.ts';
import { relationChanges } from './change.ts';
import type { Capability } from '../capability.ts';
import { relationRoutes } from './routes.ts';

export const relations = {
  routes: relationRoutes,
  changes: relationChanges,
  fields: relationFields,
} satisfies Capability;
