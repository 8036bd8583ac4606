import { sql } from 'drizzle-orm';
import { may } from '../access/permissions.ts';
import { inBounds, type SubjectsOf } from '../subjects/registry.ts';

/** What waits in the intake or was set aside is for those who may gather. */
export const sourceSubjects: SubjectsOf<'source'> = {
  source: {
    called: 'source',
    table: 'sources',
    visibleTo: (viewer, of) =>
      sql`${viewer.role && may(viewer.role, 'gather') ? sql`${of}.presence <> 'none'` : sql`${of}.presence not in ('none', 'intake', 'aside')`}
        and ${inBounds(viewer, sql`${of}.id`)}`,
    missing: 'no_such_source',
    othersWork: 'goes along',
  },
};
