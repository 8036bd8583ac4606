import { sql } from 'drizzle-orm';
import { may } from '../access/permissions.ts';
import type { SubjectsOf } from '../subjects/registry.ts';

/** What waits in the intake or was set aside is for those who may gather. */
export const sourceSubjects: SubjectsOf<'source'> = {
  source: {
    called: 'source',
    table: 'sources',
    visibleTo: ({ role }, of) =>
      may(role, 'gather') ? sql`${of}.presence <> 'none'` : sql`${of}.presence not in ('none', 'intake', 'aside')`,
    missing: 'no_such_source',
    othersWork: 'goes along',
  },
};
