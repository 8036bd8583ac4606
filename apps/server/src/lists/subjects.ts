import { sql } from 'drizzle-orm';
import type { List } from '@pandecta/core/changes';
import type { ErrorCode } from '../errors.ts';
import { everyonesOrOwn, type SubjectDefinition } from '../subjects/registry.ts';

/** The entries of a list as subjects. */
export const entrySubject = (list: List, called: string, missing: ErrorCode): SubjectDefinition => ({
  called,
  table: 'entries',
  visibleTo: (access, of) =>
    sql`${of}.list = ${list} and ${everyonesOrOwn(access, sql`(${of}.value->>'owner')::uuid`)}`,
  missing,
  othersWork: 'guards',
});
