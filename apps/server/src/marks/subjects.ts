import { sql } from 'drizzle-orm';
import type { SubjectsOf } from '../subjects/registry.ts';

export const markSubjects: SubjectsOf<'mark'> = {
  mark: {
    called: 'mark',
    table: 'marks',
    visibleTo: (_, of) => sql`${of}.present`,
    missing: 'no_such_mark',
    othersWork: 'guards',
  },
};
