import { sql } from 'drizzle-orm';
import { borneInBounds, type SubjectsOf } from '../subjects/registry.ts';

export const tagSubjects: SubjectsOf<'tag'> = {
  tag: {
    called: 'term',
    table: 'tags',
    /** A bounded member sees the terms that sources in the bounds bear. */
    visibleTo: (viewer, of) =>
      viewer.bounds ? borneInBounds(viewer, { ties: 'source_tags', column: 'tag_id' }, of) : sql`true`,
    missing: 'no_such_tag',
    othersWork: 'guards',
  },
};
