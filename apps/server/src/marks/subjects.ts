import { sql } from 'drizzle-orm';
import { inBounds, type SubjectsOf } from '../subjects/registry.ts';

export const markSubjects: SubjectsOf<'mark'> = {
  mark: {
    called: 'mark',
    table: 'marks',
    visibleTo: (viewer, of) => sql`${of}.present and ${inBounds(viewer, sql`${of}.source_id`)}`,
    missing: 'no_such_mark',
    othersWork: 'guards',
  },
};
