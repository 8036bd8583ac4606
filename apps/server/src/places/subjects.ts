import { sql, type SQL } from 'drizzle-orm';
import type { Actor } from '../access/principal.ts';
import { everyonesOrOwn, type SubjectsOf } from '../subjects/registry.ts';

export const placeSubjects: SubjectsOf<'collection'> = {
  collection: {
    called: 'collection',
    table: 'collections',
    /** A bounded member sees their collection and those below it. */
    visibleTo: (viewer, of) =>
      sql`${of}.present and ${everyonesOrOwn(viewer, sql`${of}.owner`)} ${
        viewer.bounds
          ? sql`and exists (select 1 from collection_ancestors b where b.workspace_id = ${viewer.workspaceId} and b.collection_id = ${of}.id and b.ancestor_id = ${viewer.bounds.collection})`
          : sql``
      }`,
    missing: 'no_such_collection',
    othersWork: 'guards',
  },
};

/** Whether a source is filed in a collection that is all members’, or in one below it. */
export const inCollection = ({ workspaceId }: Actor, collection: string, source: SQL): SQL =>
  sql`exists (select 1 from collection_sources bs join collection_ancestors ba on ba.workspace_id = bs.workspace_id and ba.collection_id = bs.collection_id
    join collections bc on bc.workspace_id = bs.workspace_id and bc.id = bs.collection_id and bc.present and bc.owner is null
    where bs.workspace_id = ${workspaceId} and bs.source_id = ${source} and ba.ancestor_id = ${collection})`;
