import { sql } from 'drizzle-orm';
import { inBounds, type SubjectsOf } from '../subjects/registry.ts';

export const glossSubjects: SubjectsOf<'gloss'> = {
  gloss: {
    called: 'gloss',
    table: 'glosses',
    visibleTo: (viewer, of) => sql`${of}.present and ${inBounds(viewer, sql`${of}.source_id`)}`,
    missing: 'no_such_gloss',
    othersWork: 'guards',
  },
};
