import { sql } from 'drizzle-orm';
import { entrySubject } from '../lists/subjects.ts';
import { everyonesOrOwn, type SubjectsOf } from '../subjects/registry.ts';

export const noteSubjects: SubjectsOf<'note' | 'outline'> = {
  note: {
    called: 'note',
    table: 'notes',
    /** A note speaks of many sources: who sees only part of the workspace sees their own alone. */
    visibleTo: (viewer, of) =>
      sql`${of}.present and ${viewer.bounds ? sql`${of}.owner = ${viewer.userId}::uuid` : everyonesOrOwn(viewer, sql`${of}.owner`)}`,
    missing: 'no_such_note',
    othersWork: 'guards',
  },
  outline: entrySubject('outline', 'outline', 'no_such_outline'),
};
