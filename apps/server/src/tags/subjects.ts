import { sql } from 'drizzle-orm';
import type { SubjectsOf } from '../subjects/registry.ts';

export const tagSubjects: SubjectsOf<'tag'> = {
  tag: { called: 'term', table: 'tags', visibleTo: () => sql`true`, missing: 'no_such_tag', othersWork: 'guards' },
};
