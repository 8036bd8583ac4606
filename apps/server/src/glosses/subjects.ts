import { sql } from 'drizzle-orm';
import { everyonesOrOwn, presentInBounds, type SubjectsOf } from '../subjects/registry.ts';

export const glossSubjects: SubjectsOf<'gloss'> = {
  gloss: {
    called: 'gloss',
    table: 'glosses',
    visibleTo: (viewer, of) => sql`${presentInBounds(viewer, of)} and ${everyonesOrOwn(viewer, sql`${of}.owner`)}`,
    missing: 'no_such_gloss',
    othersWork: 'guards',
  },
};
