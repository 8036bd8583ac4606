import { sql } from 'drizzle-orm';
import { entrySubject } from '../lists/subjects.ts';
import { everyonesOrOwn, presentInBounds, type SubjectsOf } from '../subjects/registry.ts';

export const markSubjects: SubjectsOf<'mark' | 'sense'> = {
  mark: {
    called: 'mark',
    table: 'marks',
    visibleTo: (viewer, of) => sql`${presentInBounds(viewer, of)} and ${everyonesOrOwn(viewer, sql`${of}.owner`)}`,
    missing: 'no_such_mark',
    othersWork: 'guards',
  },
  // What marks may mean is no secret of what is marked.
  sense: entrySubject('sense', 'sense', 'no_such_sense', () => sql`true`),
};
