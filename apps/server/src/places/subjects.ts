import { sql } from 'drizzle-orm';
import { everyonesOrOwn, type SubjectsOf } from '../subjects/registry.ts';

export const placeSubjects: SubjectsOf<'collection'> = {
  collection: {
    called: 'collection',
    table: 'collections',
    visibleTo: (access, of) => sql`${of}.present and ${everyonesOrOwn(access, sql`${of}.owner`)}`,
    missing: 'no_such_collection',
    othersWork: 'guards',
  },
};
