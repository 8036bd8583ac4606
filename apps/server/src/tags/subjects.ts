import { sql } from 'drizzle-orm';
import { inBounds, type SubjectsOf } from '../subjects/registry.ts';

export const tagSubjects: SubjectsOf<'tag'> = {
  tag: {
    called: 'term',
    table: 'tags',
    /** Who sees only part of the workspace sees the terms that sources there bear. */
    visibleTo: (viewer, of) =>
      viewer.bounds
        ? sql`exists (select 1 from source_tags b where b.workspace_id = ${of}.workspace_id and b.tag_id = ${of}.id and ${inBounds(viewer, sql`b.source_id`)})`
        : sql`true`,
    missing: 'no_such_tag',
    othersWork: 'guards',
  },
};
