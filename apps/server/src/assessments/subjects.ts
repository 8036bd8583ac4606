import { sql } from 'drizzle-orm';
import { entrySubject } from '../lists/subjects.ts';
import { inBounds, type SubjectsOf } from '../subjects/registry.ts';

export const stateSubjects: SubjectsOf<'label'> = {
  label: entrySubject(
    'label',
    'label',
    'no_such_label',
    (viewer, of) =>
      sql`exists (select 1 from source_labels b where b.workspace_id = ${of}.workspace_id and b.label_id = ${of}.id and ${inBounds(viewer, sql`b.source_id`)})`,
  ),
};
