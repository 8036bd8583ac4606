/** Research notes, and the outlines they stand in. */
import type { Capability } from '../capability.ts';
import { noteChanges } from './change.ts';
import { noteDocuments } from './documents.ts';
import { noteFacets } from './facets.ts';
import { noteFields } from './fields.ts';
import { outlineLists } from './outlines.ts';
import { noteRoutes } from './routes.ts';
import { noteSubjects } from './subjects.ts';

export const notes = {
  routes: noteRoutes,
  changes: noteChanges,
  facets: [noteFacets],
  fields: noteFields,
  documents: noteDocuments,
  lists: outlineLists,
  purged: ['note_sources'],
  subjects: noteSubjects,
} satisfies Capability;
