import { sql, type SQL } from 'drizzle-orm';
import type { List } from '@pandecta/core/changes';
import type { Viewer } from '../access/principal.ts';
import type { ErrorCode } from '../errors.ts';
import { everyonesOrOwn, type SubjectDefinition } from '../subjects/registry.ts';

/**
 * The entries of a list as subjects.
 * @param withinBounds which of those that all members share are shown to one who sees only part of the workspace: none where
 * nothing is said, since they may speak of any source
 */
export const entrySubject = (
  list: List,
  called: string,
  missing: ErrorCode,
  withinBounds: (viewer: Viewer, of: SQL) => SQL = () => sql`false`,
): SubjectDefinition => ({
  called,
  table: 'entries',
  visibleTo(viewer, of) {
    const owner = sql`(${of}.value->>'owner')::uuid`;
    const seen = everyonesOrOwn(viewer, owner);
    const within = viewer.bounds ? sql`and (${owner} is not null or ${withinBounds(viewer, of)})` : sql``;
    return sql`${of}.list = ${list} and ${seen} ${within}`;
  },
  missing,
  othersWork: 'guards',
});
